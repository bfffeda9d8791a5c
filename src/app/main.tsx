import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './theme.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { DeskPage } from './desk/DeskPage';
import { Frame } from './frame/Frame';
import { followTheme } from './state/preferences';

followTheme();

const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { index: true, element: <Navigate to="/inbox" replace /> },
      { path: 'welcome', lazy: async () => ({ Component: (await import('./welcome/WelcomePage')).WelcomePage }) },
      { path: 'register', lazy: async () => ({ Component: (await import('./register/RegisterPage')).RegisterPage }) },
      { path: 'register/new', lazy: async () => ({ Component: (await import('./register/EntryPage')).EntryPage }) },
      { path: 'register/:entry', lazy: async () => ({ Component: (await import('./register/EntryPage')).EntryPage }) },
      { path: 'rules', lazy: async () => ({ Component: (await import('./rules/RulesPage')).RulesPage }) },
      { path: 'rules/new', lazy: async () => ({ Component: (await import('./rules/RuleEditor')).RuleEditor }) },
      { path: 'rules/:rule', lazy: async () => ({ Component: (await import('./rules/RuleEditor')).RuleEditor }) },
      { path: 'logbook', lazy: async () => ({ Component: (await import('./logbook/LogbookPage')).LogbookPage }) },
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

import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './theme.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { DeskPage } from './desk/DeskPage';
import { Frame } from './frame/Frame';
import { LogbookPage } from './logbook/LogbookPage';
import { MailPage } from './mail/MailPage';
import { EntryPage } from './register/EntryPage';
import { RegisterPage } from './register/RegisterPage';
import { RuleEditor } from './rules/RuleEditor';
import { RulesPage } from './rules/RulesPage';
import { followTheme } from './state/preferences';
import { WelcomePage } from './welcome/WelcomePage';

followTheme();

const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { index: true, element: <Navigate to="/inbox" replace /> },
      { path: 'welcome', element: <WelcomePage /> },
      { path: 'register', element: <RegisterPage /> },
      { path: 'register/new', element: <EntryPage /> },
      { path: 'register/:entry', element: <EntryPage /> },
      { path: 'rules', element: <RulesPage /> },
      { path: 'rules/new', element: <RuleEditor /> },
      { path: 'rules/:rule', element: <RuleEditor /> },
      { path: 'logbook', element: <LogbookPage /> },
      { path: 'mail', element: <MailPage /> },
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

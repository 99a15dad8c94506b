import './look/door.scss';
import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { followOtherTabs, hideWhenSignedOut, queryClient } from './api/door';
import { App } from './app/App';

followOtherTabs();
hideWhenSignedOut();
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queryClient}>
      <App />
    </QueryClientProvider>
  </StrictMode>,
);

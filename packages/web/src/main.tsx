import { QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ErrorBoundary } from 'react-error-boundary';
import { BrowserRouter } from 'react-router';
import 'bootstrap/dist/css/bootstrap.min.css';
import '@fontsource-variable/inter';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/600.css';
import './styles.css';
import { App } from './App';
import { queries } from './api/queries';
import { followSystemColours } from './ui/scheme';
import { Message } from './ui/Message';

const root = document.getElementById('root');
if (root === null) throw new Error('the page has no #root');
followSystemColours();

/** What is written on a canvas before its letters are here stays as it is: the page waits for them, for a moment. */
const longestWait = 1500;
const letters = ['16px "Inter Variable"', '14px "IBM Plex Mono"', '600 14px "IBM Plex Mono"'];
// A letter that cannot be fetched is written in another hand, which is no reason to show nothing.
const loaded = Promise.allSettled(letters.map((font) => document.fonts.load(font)));
await Promise.race([loaded, new Promise((resolve) => setTimeout(resolve, longestWait))]);

createRoot(root).render(
  <StrictMode>
    <ErrorBoundary
      fallback={
        <Message
          title="Something went wrong on this page"
          text="Reload it. Nothing recorded or worked out is lost; it is all stored on the server."
        />
      }
    >
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </ErrorBoundary>
  </StrictMode>,
);

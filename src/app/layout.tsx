import '@fontsource-variable/archivo/wdth.css';
import '@fontsource/spline-sans-mono/400.css';
import '@fontsource/spline-sans-mono/600.css';
import 'bootstrap/dist/css/bootstrap.min.css';
import './theme.css';
import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { OutboxBar } from '@/ui/outbox/OutboxBar';

export const metadata: Metadata = {
  description: 'Brings the cut to the print, and keeps it there.',
};

export default async function RootLayout({ children }: { readonly children: ReactNode }) {
  const theme = (await cookies()).get('theme')?.value === 'dark' ? 'dark' : 'light';
  return (
    <html lang="en" data-bs-theme={theme} data-scroll-behavior="smooth">
      <body>
        {children}
        <OutboxBar />
      </body>
    </html>
  );
}

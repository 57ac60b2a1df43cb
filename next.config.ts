import type { NextConfig } from 'next';

const config: NextConfig = {
  turbopack: { root: import.meta.dirname },
  serverExternalPackages: ['pdfkit', 'fontkit', 'pg', 'piscina', 'pino', 'sharp'],
  experimental: { proxyClientMaxBodySize: '72mb' },
  poweredByHeader: false,
};

export default config;

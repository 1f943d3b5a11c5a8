/** @type {import("next").NextConfig} */
export default {
  // These reach for native bindings or dynamic requires; bundling them breaks at run time.
  serverExternalPackages: ["sequelize", "pg", "umzug", "pg-boss", "pino", "prom-client", "piscina"],
  poweredByHeader: false,
  // The application's own server stands before it, and keeps pages as text.
  compress: false,
  // No picture is resized here: nobody needs the door that does.
  images: { unoptimized: true },
  devIndicators: false,
  // Types are checked by `npm run types`, which also sees tests and scripts.
  typescript: { ignoreBuildErrors: true },
  outputFileTracingRoot: import.meta.dirname,
};

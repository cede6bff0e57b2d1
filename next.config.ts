import type { NextConfig } from "next";

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ["better-sqlite3", "manifold-3d"],
  // Bodies pass the door up to the largest limit, that of a backup; the door itself refuses what announces more than its path may carry.
  experimental: { proxyClientMaxBodySize: "513mb" },
  devIndicators: false,
  // Pictures come from the workshop at their own size: nothing here resizes what a request names.
  images: { unoptimized: true },
  // What the calendar was called before.
  redirects: () => Promise.resolve([{ source: "/schedule", destination: "/calendar", permanent: true }]),
};

export default config;

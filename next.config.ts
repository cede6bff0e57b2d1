import type { NextConfig } from "next";

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ["better-sqlite3", "manifold-3d"],
  // Bodies pass the door up to the photo limit; the door itself refuses what announces more.
  experimental: { proxyClientMaxBodySize: "13mb" },
  devIndicators: false,
};

export default config;

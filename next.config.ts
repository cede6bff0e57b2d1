import type { NextConfig } from "next";

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  serverExternalPackages: ["better-sqlite3", "manifold-3d", "sharp", "tsx", "yauzl", "yazl"],
  // A body waits at the door until it has been judged, so the door holds no more of it than the largest picture; what announces more than
  // its path may carry is refused before.
  experimental: { proxyClientMaxBodySize: "13mb" },
  devIndicators: false,
  // Pictures come from the workshop at their own size: nothing here resizes what a request names.
  images: { unoptimized: true },
  // What the calendar was called before.
  redirects: () => Promise.resolve([{ source: "/schedule", destination: "/calendar", permanent: true }]),
};

export default config;

import type { Metadata, Viewport } from "next";
import localFont from "next/font/local";
import { cookies } from "next/headers";
import { forecastOf, getSettings } from "@/server/settings";
import { workshop, WorkshopUnavailable } from "@/server/workshop";
import { Shell } from "@/ui/features/shell/Shell";
import { THEME_COOKIE, THEMES } from "@/ui/kit/themes";
import { UnitsProvider } from "@/ui/kit/units";
import "./globals.css";

// The letters of nearly every word come with the page, under stand-ins of the same measure: nothing moves when they are there.
// Rarer letters come from the whole families that globals.css names after them.
const reading = localFont({
  src: "../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2",
  variable: "--font-reading",
  weight: "200 800",
});
const heading = localFont({
  src: "../node_modules/@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2",
  variable: "--font-heading",
  weight: "200 800",
});

export const metadata: Metadata = {
  title: { default: "Zesty Ladle", template: "%s · Zesty Ladle" },
  description: "A workshop instrument for people who build silicone moulds and cast in them.",
};
export const viewport: Viewport = {
  themeColor: [
    { media: "(prefers-color-scheme: light)", color: "#f6efdf" },
    { media: "(prefers-color-scheme: dark)", color: "#14171d" },
  ],
};
/** Every page reads the workshop, and carries this answer's own script nonce. */
export const dynamic = "force-dynamic";

function openSettings() {
  try {
    const w = workshop();
    return { ok: true as const, settings: getSettings(w), zone: forecastOf(w).zone };
  } catch (e) {
    if (e instanceof WorkshopUnavailable) return { ok: false as const, message: e.message };
    throw e;
  }
}

export default async function RootLayout({ children }: { children: React.ReactNode }) {
  const opened = openSettings();
  const wanted = (await cookies()).get(THEME_COOKIE)?.value;
  const theme = THEMES.find((t) => t === wanted && t !== "system");
  return (
    <html lang="en" data-theme={theme} className={`${reading.variable} ${heading.variable}`}>
      <body>
        {opened.ok ? (
          <UnitsProvider initial={opened.settings.units} zone={opened.zone}>
            <Shell workshopName={opened.settings.workshopName}>{children}</Shell>
          </UnitsProvider>
        ) : (
          <main className="mx-auto max-w-2xl space-y-4 px-5 py-16">
            <h1 className="text-3xl font-bold">The workshop cannot be opened</h1>
            <p className="text-lg">{opened.message}</p>
            <p className="hint">Nothing was changed. Reload this page once it is put right.</p>
          </main>
        )}
      </body>
    </html>
  );
}

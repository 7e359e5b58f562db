import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { Navigate, NavLink, Route, Routes } from "react-router";
import { api, ask } from "./api/client";
import { queries } from "./api/queries";
import { forgetTyped } from "./hooks/useKept";
import { useTheme } from "./hooks/useTheme";
import { CastEntry } from "./sections/CastEntry";
import { BenchSection } from "./sections/BenchSection";
import { PieceSection } from "./sections/PieceSection";
import { SignIn } from "./sections/SignIn";
import { CuttingSection } from "./sections/CuttingSection";
import { ReelsSection } from "./sections/ReelsSection";
import { ToolsSection } from "./sections/ToolsSection";
import { WearersSection } from "./sections/WearersSection";

/** The house: a door, and behind it the sections beside the work. */
export function App() {
  const { t } = useTranslation();
  const theme = useTheme();
  const { data: session } = useQuery(queries.session());
  if (!session) return <p className="p-8 text-muted">{t("loading")}</p>;
  if (!session.signed_in) return <SignIn demo={session.demo} />;
  return (
    <div className="grid grid-cols-[88px_1fr]">
      <a
        href="#work"
        className="sr-only focus:not-sr-only focus:absolute focus:z-10 focus:bg-ink focus:p-3 focus:text-on-ink"
      >
        {t("nav.skip")}
      </a>
      <Sections theme={theme} />
      <main id="work" tabIndex={-1} className="min-w-0">
        <Routes>
          <Route path="/" element={<BenchSection />} />
          <Route path="/pieces/:id/:station?" element={<PieceSection />} />
          <Route path="/wearers/cast" element={<CastEntry />} />
          <Route path="/wearers/:id?" element={<WearersSection />} />
          <Route path="/reels" element={<ReelsSection />} />
          <Route path="/cutting" element={<CuttingSection />} />
          <Route path="/tools" element={<ToolsSection />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </main>
    </div>
  );
}

function Sections({ theme }: { theme: ReturnType<typeof useTheme> }) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const leave = useMutation({
    mutationFn: () => ask(api.POST("/api/session/sign-out")),
    onSuccess: () => {
      forgetTyped();
      return client.resetQueries();
    },
  });
  const link =
    "block min-h-[44px] border-l-4 border-transparent py-2.5 pl-3 text-[15px] hover:bg-panel aria-[current=page]:border-accent aria-[current=page]:font-bold";
  const dark = theme.theme === "dark";
  return (
    <nav
      aria-label={t("nav.name")}
      className="sticky top-0 flex h-screen flex-col border-r border-ink py-3"
    >
      <NavLink
        to="/"
        className="mb-3 block min-h-[44px] pl-4 text-lg leading-[1.05] font-extrabold"
      >
        Jam
        <br />
        Reel
      </NavLink>
      <NavLink to="/" end className={link}>
        {t("nav.bench")}
      </NavLink>
      <NavLink to="/wearers" className={link}>
        {t("nav.wearers")}
      </NavLink>
      <NavLink to="/reels" className={link}>
        {t("nav.reels")}
      </NavLink>
      <NavLink to="/tools" className={link}>
        {t("nav.tools")}
      </NavLink>
      <div className="mt-auto">
        <button
          type="button"
          className={`${link} w-full text-left`}
          onClick={() => theme.change(dark ? "light" : "dark")}
        >
          {t(dark ? "nav.light" : "nav.dark")}
        </button>
        <button type="button" className={`${link} w-full text-left`} onClick={() => leave.mutate()}>
          {t("nav.leave")}
        </button>
      </div>
    </nav>
  );
}

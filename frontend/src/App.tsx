import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { Navigate, NavLink, Route, Routes, useLocation } from "react-router";
import { api, ask } from "./api/client";
import { queries } from "./api/queries";
import { forgetTyped } from "./shared/useKept";
import { useTheme } from "./shared/useTheme";
import { lazy, Suspense } from "react";
import { Fallen } from "./shared/Fallen";
import { NoticeBar } from "./shared/NoticeBar";

/** A section, fetched when it is first gone to. */
const Bench = lazy(async () => ({
  default: (await import("./bench/BenchSection")).BenchSection,
}));
const Door = lazy(async () => ({ default: (await import("./account/SignIn")).SignIn }));
const PieceAt = lazy(async () => ({
  default: (await import("./piece/PieceSection")).PieceSection,
}));
const Cast = lazy(async () => ({ default: (await import("./measures/CastEntry")).CastEntry }));
const Wearers = lazy(async () => ({
  default: (await import("./measures/WearersSection")).WearersSection,
}));
const Reels = lazy(async () => ({
  default: (await import("./stock/ReelsSection")).ReelsSection,
}));
const Cutting = lazy(async () => ({
  default: (await import("./stock/CuttingSection")).CuttingSection,
}));
const Account = lazy(async () => ({
  default: (await import("./account/AccountSection")).AccountSection,
}));
const Archive = lazy(async () => ({
  default: (await import("./log/ArchiveSection")).ArchiveSection,
}));
const Tools = lazy(async () => ({
  default: (await import("./tools/ToolsSection")).ToolsSection,
}));

/** Fetched behind the first screen: nobody is signed out so soon. */
const SignInAgain = lazy(async () => ({
  default: (await import("./account/SignInAgain")).SignInAgain,
}));
const AtTheBench = lazy(async () => ({
  default: (await import("./bench/BenchMode")).BenchMode,
}));
const Hand = lazy(async () => ({ default: (await import("./tools/HandSection")).HandSection }));
const Log = lazy(async () => ({ default: (await import("./log/LogSection")).LogSection }));
const Day = lazy(async () => ({ default: (await import("./day/DaySection")).DaySection }));

/** The house: a door, and behind it the sections beside the work. */
export function App() {
  const { t } = useTranslation();
  const theme = useTheme();
  const at = useLocation().pathname;
  const { data: session, error } = useQuery(queries.session());
  if (!session) return <p className="p-8 text-muted">{error ? error.message : t("loading")}</p>;
  if (!session.signed_in)
    return (
      <Suspense fallback={<p className="p-8 text-muted">{t("loading")}</p>}>
        <Door session={session} />
      </Suspense>
    );
  // One step fills the screen: nothing stands beside it.
  if (/^\/pieces\/\d+\/bench$/.test(at))
    return (
      <Fallen at={at}>
        <Suspense fallback={<p className="p-8 text-muted">{t("loading")}</p>}>
          <Routes>
            <Route path="/pieces/:id/bench" element={<AtTheBench />} />
          </Routes>
        </Suspense>
        <NoticeBar />
        <Suspense fallback={null}>
          <SignInAgain session={session} />
        </Suspense>
      </Fallen>
    );
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
        <Fallen at={at}>
          <Suspense fallback={<p className="p-8 text-muted">{t("loading")}</p>}>
            <Routes>
              <Route path="/" element={<Bench />} />
              <Route path="/pieces/:id/:station?" element={<PieceAt />} />
              <Route path="/wearers/cast" element={<Cast />} />
              <Route path="/wearers/:id?" element={<Wearers />} />
              <Route path="/reels" element={<Reels />} />
              <Route path="/cutting" element={<Cutting />} />
              <Route path="/tools" element={<Tools />} />
              <Route path="/hand" element={<Hand />} />
              <Route path="/log/:id?" element={<Log />} />
              <Route path="/day" element={<Day />} />
              <Route path="/archive" element={<Archive />} />
              <Route path="/account" element={<Account />} />
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </Suspense>
        </Fallen>
      </main>
      <NoticeBar />
      <Suspense fallback={null}>
        <SignInAgain session={session} />
      </Suspense>
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
    "block min-h-[44px] border-l-4 border-transparent py-2.5 pl-3 text-body hover:bg-panel aria-[current=page]:border-accent aria-[current=page]:font-bold";
  const dark = theme.theme === "dark";
  return (
    <nav
      aria-label={t("nav.name")}
      className="sticky top-0 flex h-screen flex-col border-r border-ink py-3"
    >
      <NavLink
        to="/"
        className="mb-3 block min-h-[44px] pl-4 text-lead leading-[1.05] font-extrabold"
      >
        Jam
        <br />
        Reel
      </NavLink>
      {["bench", "day", "wearers", "reels", "hand", "log", "tools"].map((name) => (
        <NavLink
          key={name}
          to={name === "bench" ? "/" : `/${name}`}
          end={name === "bench"}
          className={link}
        >
          {t(`nav.${name}`)}
        </NavLink>
      ))}
      <div className="mt-auto">
        <NavLink to="/archive" className={link}>
          {t("nav.archive")}
        </NavLink>
        <NavLink to="/account" className={link}>
          {t("nav.account")}
        </NavLink>
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

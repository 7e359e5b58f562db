import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type Session } from "../api/client";
import { queries } from "../api/queries";
import { forgetTyped } from "../shared/useKept";
import { Button } from "../shared/Button";
import { Problem, TextField } from "../shared/TextField";
import { addWords } from "../i18n";
import words from "../locales/en-account.json";

addWords(words);

/** One's own account: the password, sessions elsewhere, leaving for good. */
export function AccountSection() {
  const { t } = useTranslation();
  const { data: session } = useQuery(queries.session());
  if (!session) return null;
  return (
    <div className="max-w-[860px] px-6 py-4">
      <title>{`${t("nav.account")} · Jam Reel`}</title>
      <h1 className="text-page break-words">
        {session.workshop}
        <span className="ml-4 text-base font-normal text-muted">
          {t("account.as", { user: session.user })}
        </span>
      </h1>
      {session.demo && session.demo_user === session.user ? (
        <p className="mt-4 max-w-prose">{t("account.demo")}</p>
      ) : (
        <div className="mt-6 grid gap-10 tablet:grid-cols-2">
          <Password />
          <div className="space-y-10">
            <Elsewhere />
            <Leaving session={session} />
          </div>
        </div>
      )}
    </div>
  );
}

/** What the server says of one field, and of none that is shown. */
function saysOf(error: unknown) {
  const details = error instanceof ApiError ? error.details : undefined;
  return (field: string) => (details?.field === field ? details.detail : undefined);
}

function Password() {
  const { t } = useTranslation();
  const [typed, setTyped] = useState({ password: "", new: "" });
  const change = useMutation({
    meta: { shown: true },
    mutationFn: () => ask(api.POST("/api/account/password", { body: typed })),
    onSuccess: () => setTyped({ password: "", new: "" }),
  });
  const says = saysOf(change.error);
  const other = change.error && !says("password") && !says("new");
  return (
    <form
      className="space-y-4"
      onSubmit={(event) => {
        event.preventDefault();
        change.mutate();
      }}
    >
      <h2 className="border-b border-ink pb-0.5 text-lead">{t("account.password")}</h2>
      <TextField
        label={t("account.old")}
        type="password"
        autoComplete="current-password"
        value={typed.password}
        onText={(password) => setTyped({ ...typed, password })}
        problem={says("password")}
      />
      <TextField
        label={t("account.new")}
        hint={t("account.new_hint")}
        type="password"
        autoComplete="new-password"
        value={typed.new}
        onText={(password) => setTyped({ ...typed, new: password })}
        problem={says("new")}
      />
      <Button
        type="submit"
        look="strong"
        disabled={change.isPending || !typed.password || !typed.new}
      >
        {t("account.change")}
      </Button>
      {change.data && <p role="status">{t("account.changed", { count: change.data.ended })}</p>}
      {other && <Problem says={change.error?.message} />}
    </form>
  );
}

/** Away from here for everybody who may sit at a machine that was left open. */
function useLeft() {
  const client = useQueryClient();
  return () => {
    forgetTyped();
    return client.resetQueries();
  };
}

function Elsewhere() {
  const { t } = useTranslation();
  const left = useLeft();
  const end = useMutation({
    mutationFn: () => ask(api.POST("/api/account/sign-out-everywhere")),
    onSuccess: left,
  });
  return (
    <section className="space-y-3">
      <h2 className="border-b border-ink pb-0.5 text-lead">{t("account.elsewhere")}</h2>
      <p className="text-muted">{t("account.elsewhere_what")}</p>
      <Button disabled={end.isPending} onClick={() => end.mutate()}>
        {t("account.everywhere")}
      </Button>
    </section>
  );
}

function Leaving({ session }: { session: Session }) {
  const { t } = useTranslation();
  const left = useLeft();
  const [open, setOpen] = useState(false);
  const [password, setPassword] = useState("");
  const leave = useMutation({
    meta: { shown: true },
    mutationFn: () => ask(api.POST("/api/account/delete", { body: { password } })),
    onSuccess: left,
  });
  return (
    <section className="space-y-3">
      <h2 className="border-b border-ink pb-0.5 text-lead">{t("account.leaving")}</h2>
      <p className="text-muted">{t("account.leaving_what", { bench: session.workshop })}</p>
      {open ? (
        <form
          className="space-y-3"
          onSubmit={(event) => {
            event.preventDefault();
            leave.mutate();
          }}
        >
          <TextField
            label={t("account.old")}
            type="password"
            autoComplete="current-password"
            value={password}
            onText={setPassword}
            problem={leave.error?.message}
          />
          <div className="flex gap-2">
            <Button type="submit" look="strong" disabled={leave.isPending || !password}>
              {t("account.delete")}
            </Button>
            <Button look="quiet" onClick={() => setOpen(false)}>
              {t("account.stay")}
            </Button>
          </div>
        </form>
      ) : (
        <Button onClick={() => setOpen(true)}>{t("account.delete_open")}</Button>
      )}
    </section>
  );
}

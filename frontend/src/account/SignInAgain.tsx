import "../locales/work";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { useTranslation } from "react-i18next";
import { signedOut } from "../api/away";
import { api, ask, type Session } from "../api/client";
import { Button } from "../shared/Button";
import { Problem, TextField } from "../shared/TextField";

/** Over the work, when the session ended elsewhere: what is typed stays where it is. */
export function SignInAgain({ session }: { session: Session }) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const away = useSyncExternalStore(signedOut.subscribe, signedOut.snapshot);
  const [password, setPassword] = useState("");
  const user = session.user ?? "";
  const isDemo = session.demo && session.demo_user === user;
  const enter = useMutation({
    meta: { shown: true },
    mutationFn: () =>
      isDemo
        ? ask(api.POST("/api/session/demo"))
        : ask(api.POST("/api/session/sign-in", { body: { user, password } })),
    onSuccess: () => {
      setPassword("");
      signedOut.say(false);
      void client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== "piece" });
    },
  });
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    if (away) dialog.current?.showModal();
    else dialog.current?.close();
  }, [away]);
  return (
    // The browser's own: it holds the focus and needs no style in the page, which the policy of
    // contents would not let in.
    <dialog
      ref={dialog}
      aria-labelledby="again-title"
      className="m-auto w-[min(440px,92vw)] border-2 border-ink bg-panel p-6 text-ink backdrop:bg-ink/40"
      onCancel={(event) => event.preventDefault()}
    >
      <h2 id="again-title" className="text-title font-bold">
        {t("again.title")}
      </h2>
      <p className="mt-1">{t("again.what", { user })}</p>
      <form
        className="mt-4 space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate();
        }}
      >
        {!isDemo && (
          <TextField
            label={t("door.password")}
            type="password"
            autoComplete="current-password"
            value={password}
            onText={setPassword}
          />
        )}
        <Problem says={enter.error?.message} />
        <div className="flex gap-2">
          <Button type="submit" look="strong" disabled={enter.isPending}>
            {t("door.enter")}
          </Button>
          <Button look="quiet" onClick={() => window.location.assign("/")}>
            {t("again.other")}
          </Button>
        </div>
      </form>
    </dialog>
  );
}

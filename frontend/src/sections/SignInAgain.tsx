import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useState, useSyncExternalStore } from "react";
import { useTranslation } from "react-i18next";
import { signedOut } from "../api/away";
import { api, ask, type Session } from "../api/client";
import { Button } from "../ui/Button";
import { Problem, TextField } from "../ui/TextField";

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
  return (
    <Dialog.Root open={away}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/40" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-40 w-[min(440px,92vw)] -translate-x-1/2 -translate-y-1/2 border-2 border-ink bg-paper p-6"
          onEscapeKeyDown={(event) => event.preventDefault()}
        >
          <Dialog.Title className="text-[22px] font-bold">{t("again.title")}</Dialog.Title>
          <Dialog.Description className="mt-1">{t("again.what", { user })}</Dialog.Description>
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
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

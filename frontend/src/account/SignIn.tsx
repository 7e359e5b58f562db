import "../locales/work";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { signedOut } from "../api/away";
import { api, ApiError, ask, type Session } from "../api/client";
import { Button } from "../shared/Button";
import { Problem, TextField } from "../shared/TextField";

interface Typed {
  user: string;
  password: string;
  workshop: string;
}

/** The door: the demo bench through one button, a bench of one's own through a name and password. */
export function SignIn({ session: { demo, sign_up } }: { session: Session }) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const [isNew, setNew] = useState(false);
  // Two fields, three at most: the door is the first thing that is fetched, so it stays light.
  const [typed, setTyped] = useState<Typed>({ user: "", password: "", workshop: "" });
  const field = (name: keyof Typed) => ({
    value: typed[name],
    onText: (text: string) => setTyped({ ...typed, [name]: text }),
    problem: says(name),
  });
  const enter = useMutation({
    meta: { shown: true },
    mutationFn: (given: Typed | null) => {
      if (!given) return ask(api.POST("/api/session/demo"));
      const { user, password } = given;
      return ask(
        isNew
          ? api.POST("/api/session/sign-up", { body: given })
          : api.POST("/api/session/sign-in", { body: { user, password } }),
      );
    },
    onSuccess: () => {
      signedOut.say(false);
      return client.invalidateQueries();
    },
  });
  const problem = enter.error instanceof ApiError ? enter.error.details : undefined;
  const says = (field: string) => (problem?.field === field ? problem.detail : undefined);
  return (
    <main className="mx-auto grid min-h-screen max-w-[960px] content-center gap-12 px-8 tablet:grid-cols-2">
      <title>Jam Reel</title>
      <div>
        <img src="/mark.svg" alt="" width="72" height="72" />
        <h1 className="mt-4 text-figure leading-none">Jam Reel</h1>
        <p className="mt-4 max-w-[30ch] text-head leading-snug">{t("door.what")}</p>
        {demo && (
          <>
            <Button
              look="strong"
              className="mt-8 min-h-[60px] px-7 text-head"
              onClick={() => enter.mutate(null)}
            >
              {t("door.demo")}
            </Button>
            <p className="mt-2 text-muted">{t("door.demo_what")}</p>
          </>
        )}
      </div>
      <form
        className="space-y-4 border-l hairline pl-12"
        onSubmit={(event) => {
          event.preventDefault();
          enter.mutate(typed);
        }}
      >
        <h2 className="text-head">{t(isNew ? "door.new" : "door.sign_in")}</h2>
        {isNew && <TextField label={t("door.workshop")} {...field("workshop")} />}
        <TextField label={t("door.user")} autoComplete="username" {...field("user")} />
        <TextField
          label={t("door.password")}
          type="password"
          autoComplete={isNew ? "new-password" : "current-password"}
          {...field("password")}
        />
        <div className="flex flex-wrap gap-2">
          <Button type="submit" look={demo ? "plain" : "strong"} disabled={enter.isPending}>
            {t(isNew ? "door.make" : "door.enter")}
          </Button>
          {sign_up && (
            <Button look="quiet" onClick={() => setNew(!isNew)}>
              {t(isNew ? "door.have" : "door.want")}
            </Button>
          )}
        </div>
        {!sign_up && <p className="text-muted">{t("door.closed")}</p>}
        {problem && !["user", "password", "workshop"].includes(problem.field ?? "") && (
          <Problem says={problem.detail} />
        )}
      </form>
    </main>
  );
}

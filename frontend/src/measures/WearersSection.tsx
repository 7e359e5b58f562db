import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { useForm } from "react-hook-form";
import { NavLink, useNavigate, useParams } from "react-router";
import { api, ask, type Wearer } from "../api/client";
import { queries } from "../api/queries";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Problem, TextField } from "../shared/TextField";
import { CastLink } from "./CastEntry";
import { WearerPage } from "./WearerPage";
import { addWords } from "../i18n";
import words from "../locales/en-cast.json";

addWords(words);

const LISTED = ["wrist_girth", "hand_pass_girth"];

/** Everybody who is measured, and one of them in full. */
export function WearersSection() {
  const { t } = useTranslation();
  const { id } = useParams();
  const { data: wearers } = useQuery(queries.wearers());
  const facts = useQuery(queries.facts()).data;
  const chosen = wearers?.find((one) => one.id === Number(id));
  const sites = (facts?.sites ?? []).filter((site) => LISTED.includes(site.id));
  return (
    <div className="grid grid-cols-1 laptop:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <title>{`${t("nav.wearers")} · Jam Reel`}</title>
      <div className="px-6 py-4">
        <div className="mb-2 flex items-baseline justify-between">
          <h1 className="text-page">{t("nav.wearers")}</h1>
          <CastLink>{t("cast.link")}</CastLink>
        </div>
        {wearers?.length === 0 && <p className="mb-4 text-muted">{t("wearers.empty")}</p>}
        <table className="w-full table-fixed">
          <thead className="border-b border-ink text-small text-muted">
            <tr>
              <th scope="col" className="py-1 text-left font-normal">
                {t("wearers.name")}
              </th>
              {sites.map((site) => (
                <th key={site.id} scope="col" className="py-1 text-right font-normal">
                  {t(`site.${site.id}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {wearers?.map((wearer) => (
              <tr key={wearer.id} className="border-b hairline has-[[aria-current=page]]:bg-panel">
                <th scope="row" className="text-left font-normal">
                  <NavLink
                    to={`/wearers/${wearer.id}`}
                    className="block min-h-[48px] py-1 pl-2 hover:bg-panel aria-[current=page]:border-l-4 aria-[current=page]:border-accent aria-[current=page]:bg-panel"
                  >
                    <span className="block font-semibold break-words">{wearer.name}</span>
                    <span className="block text-small break-words text-muted">
                      {wearer.part}
                      {wearer.is_child && ` · ${t("wearers.child")}`}
                    </span>
                  </NavLink>
                </th>
                {sites.map((site) => (
                  <td key={site.id} className="text-right align-middle">
                    <GirthCell wearer={wearer} site={site.id} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <NewWearer />
      </div>
      <div className="border-t hairline bg-panel px-6 py-4 laptop:min-h-screen laptop:border-t-0 laptop:border-l">
        {chosen ? (
          <WearerPage key={chosen.id} wearer={chosen} />
        ) : (
          <p className="text-muted">{t("wearers.choose")}</p>
        )}
      </div>
    </div>
  );
}

function GirthCell({ wearer, site }: { wearer: Wearer; site: string }) {
  const { t } = useTranslation();
  const girth = wearer.girths.find((one) => one.site === site);
  if (!girth) return <span className="text-small text-muted">{t("wearers.not_yet")}</span>;
  return (
    <>
      <Figure mm={girth.value_mm} className="text-head font-semibold" />
      <span className="block text-note text-muted">
        ± <Figure mm={girth.plus_minus_mm} />
        {girth.ask_another && ` · ${t("wearers.again")}`}
      </span>
    </>
  );
}

function NewWearer() {
  const { t } = useTranslation();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { register, handleSubmit, reset } = useForm({ defaultValues: { name: "", part: "" } });
  const add = useMutation({
    meta: { shown: true },
    mutationFn: (typed: { name: string; part: string }) =>
      ask(api.POST("/api/wearers", { body: { ...typed, is_child: false, note: "" } })),
    onSuccess: async (wearer) => {
      reset();
      await client.invalidateQueries({ queryKey: ["wearers"] });
      void navigate(`/wearers/${wearer.id}`);
    },
  });
  return (
    <form
      className="mt-6 flex flex-wrap items-end gap-3"
      onSubmit={handleSubmit((typed) => add.mutate(typed))}
    >
      <TextField
        className="w-52"
        label={t("wearers.new_name")}
        {...register("name", { required: true })}
      />
      <TextField className="w-44" label={t("wearers.part")} {...register("part")} />
      <Button type="submit">{t("wearers.add")}</Button>
      <Problem says={add.error?.message} />
    </form>
  );
}

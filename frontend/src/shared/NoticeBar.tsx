import { useSyncExternalStore } from "react";
import { useTranslation } from "react-i18next";
import { Button } from "./Button";
import { notice } from "./notice";

/** What went wrong, or what can be undone, at the foot of the page until it is read. */
export function NoticeBar() {
  const { t } = useTranslation();
  const { says, undo } = useSyncExternalStore(notice.subscribe, notice.snapshot);
  if (!says) return null;
  return (
    <div
      role={undo ? "status" : "alert"}
      className="fixed right-6 bottom-6 left-[112px] z-20 flex items-center gap-4 border-2 border-ink bg-panel py-2 pr-2 pl-4"
    >
      <p className="mr-auto min-w-0 font-medium break-words">{says}</p>
      {undo && (
        <Button look="strong" onClick={undo.do}>
          {undo.says}
        </Button>
      )}
      <Button onClick={() => notice.say("")}>{t("notice.read")}</Button>
    </div>
  );
}

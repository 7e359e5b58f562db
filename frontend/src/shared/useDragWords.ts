import type { Announcements, ScreenReaderInstructions, UniqueIdentifier } from "@dnd-kit/core";
import { useTranslation } from "react-i18next";

interface Words {
  announcements: Announcements;
  screenReaderInstructions: ScreenReaderInstructions;
}

interface Row {
  id: string;
  name: string;
  among?: string;
}

/** What a screen reader says while a row is dragged: its name, and its place among its own. */
export function useDragWords(rows: readonly Row[]): Words {
  const { t } = useTranslation();
  const told = (id: UniqueIdentifier) => {
    const row = rows.find((one) => one.id === id);
    const own = rows.filter((one) => one.among === row?.among);
    return {
      name: row?.name ?? "",
      place: own.findIndex((one) => one.id === id) + 1,
      of: own.length,
    };
  };
  const where = (key: string, id: UniqueIdentifier, over: UniqueIdentifier | undefined) =>
    over === undefined ? undefined : t(key, { ...told(over), name: told(id).name });
  return {
    announcements: {
      onDragStart: ({ active }) => t("drag.lifted", told(active.id)),
      onDragOver: ({ active, over }) =>
        over?.id === active.id ? undefined : where("drag.over", active.id, over?.id),
      onDragEnd: ({ active, over }) => where("drag.dropped", active.id, over?.id),
      onDragCancel: ({ active }) => t("drag.left", told(active.id)),
    },
    screenReaderInstructions: { draggable: t("drag.how") },
  };
}

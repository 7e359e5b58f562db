"""Records of a time before entries had names, found again in the plan of now.

Then a wire went by its role and a number over the whole piece, a step by the sort of part, a need
by its kind and size. Each is found again by that and by its planned length; what is found nowhere
keeps its old name, and so is no longer needed.
"""

from collections.abc import Sequence

from jamreel.core.cutting.cuts import Cut, of_cut, wire_key
from jamreel.core.result import Plan
from jamreel.core.workpiece.records import SAME_MM, Record

# Chain was once cut like wire, and the wire of strung beads had another name.
_CHAINS = frozenset({"chain", "side", "parting"})
_ROLES = {"string": "string_run"}


def found_again(records: Sequence[Record], plan: Plan) -> dict[str, tuple[Record, ...]]:
    """Return under each old key the records that it becomes.

    Args:
        records: named as plans named them before entries had names.
        plan: of now.

    Returns:
        One record or several for each key, the same one where nothing was found.

    Source: plain comparison; planned lengths to five hundredths of a millimetre.
    """
    open_keys = {cut.id: [wire_key(cut, n + 1) for n in range(cut.quantity)] for cut in plan.cuts}
    found: dict[str, tuple[Record, ...]] = {}
    for record in sorted(records, key=lambda one: (one.kind, of_cut(one.key))):
        if record.kind == "cut" and of_cut(record.key)[0] in _CHAINS:
            found[record.key] = _chain(record, plan)
        elif record.kind == "cut":
            key = _wire(record, plan.cuts, open_keys)
            found[record.key] = (record.model_copy(update={"key": key}),)
        elif record.kind == "step":
            found[record.key] = _steps(record, plan)
        else:
            found[record.key] = _shares(record, plan)
    return found


def _wire(record: Record, cuts: Sequence[Cut], open_keys: dict[str, list[str]]) -> str:
    # A number after the role told unlike wires of one role apart; their lengths do so too.
    role = of_cut(record.key)[0]
    base = role.rpartition("_")[0] if role.rpartition("_")[2].isdigit() else role
    roles = {role, base, _ROLES.get(role, role)}
    for cut in cuts:
        named = cut.id.rpartition("/")[2].partition("~")[0]
        near = record.planned is None or abs(record.planned - cut.length_mm) <= SAME_MM
        if named in roles and near and open_keys[cut.id]:
            return open_keys[cut.id].pop(0)
    return record.key


def _steps(record: Record, plan: Plan) -> tuple[Record, ...]:
    if any(record.key in step.stands_for for step in plan.steps):
        return (record,)
    sort, _, name = record.key.partition("-")
    number = int(sort[-1]) if sort[-1:].isdigit() else 1
    same = [
        step
        for step in plan.steps
        if step.id.rpartition("/")[2] == name and step.sort == sort.rstrip("0123456789")
    ]
    if not same or (len(same) > 1 and len(same) < number):
        return (record,)
    keys = same[number - 1 if len(same) > 1 else 0].stands_for
    return tuple(record.model_copy(update={"key": key}) for key in keys)


def _chain(record: Record, plan: Plan) -> tuple[Record, ...]:
    keys = [
        (need.key_of(share), share.count)
        for need in plan.needs
        for share in need.shares
        if need.slug.startswith("chain-")
    ]
    # Side chains are cut for the brow, the last need is the parting's.
    wanted = keys[-1:] if record.key == "parting" else keys[:1]
    return tuple(
        Record(kind="need", key=key, planned=count, actual=count, says=record.says)
        for key, count in wanted
    ) or (record,)


def _shares(record: Record, plan: Plan) -> tuple[Record, ...]:
    need = next((one for one in plan.needs if one.slug == record.key), None)
    if need is None:
        return (record,)
    return tuple(
        record.model_copy(
            update={"key": need.key_of(share), "actual": share.count, "planned": share.count}
        )
        for share in need.shares
    )

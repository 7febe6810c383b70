import { Command } from "cmdk";
import { useNavigate } from "react-router";
import { getSchool, listChildren, listGroups, listTexts } from "#contract";
import { useAsk } from "./api.ts";
import { besides, places } from "./places.ts";

/** Finds a child, a group, a text or a place by typing. */
export function Palette({ open, onClose }: { open: boolean; onClose: () => void }) {
  const navigate = useNavigate();
  const children = useAsk(listChildren, open ? {} : null);
  const groups = useAsk(listGroups, open ? {} : null);
  const school = useAsk(getSchool, open ? {} : null);
  const texts = useAsk(listTexts, open ? {} : null, { revalidateOnFocus: false });
  const go = (path: string) => () => {
    onClose();
    navigate(path);
  };
  const classOf = (id: string) => school.data?.classes.find((one) => one.id === id)?.name ?? "";
  const item = "flex cursor-pointer justify-between rounded px-2 py-1.5 data-[selected=true]:bg-leaf-pale";
  const heading =
    "[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-soft";
  return (
    <Command.Dialog
      open={open}
      onOpenChange={(now) => !now && onClose()}
      label="Find a child, a group, a text or a place"
      overlayClassName="fixed inset-0 z-40 bg-black/30"
      contentClassName="fixed left-1/2 top-[12vh] z-50 w-[34rem] max-w-[94vw] -translate-x-1/2 rounded-lg border border-line bg-sheet p-2 shadow-xl"
    >
      <Command.Input
        placeholder="Find a child, a group, a text, a place"
        aria-label="Find a child, a group, a text, a place"
        className="w-full rounded-md border border-line bg-paper px-3 py-2"
      />
      <Command.List aria-label="What was found" className="mt-1 max-h-[50vh] overflow-y-auto">
        <Command.Empty className="px-2 py-4 text-soft">Nothing has that name.</Command.Empty>
        <Command.Group heading="Places" className={heading}>
          {[...places, ...besides].map((place) => (
            <Command.Item key={place.path} value={`place ${place.name}`} onSelect={go(place.path)} className={item}>
              {place.name}
              <span className="text-soft">g {place.key}</span>
            </Command.Item>
          ))}
          <Command.Item value="make groups new" onSelect={go("/groups/new")} className={item}>
            Make groups
          </Command.Item>
        </Command.Group>
        <Command.Group heading="Groups" className={heading}>
          {groups.data
            ?.filter((group) => !group.closed)
            .map((group) => (
              <Command.Item
                key={group.id}
                value={`group ${group.name} ${group.id}`}
                onSelect={go(`/groups/${group.id}`)}
                className={item}
              >
                {group.name}
                <span className="text-soft">{group.members.length} children</span>
              </Command.Item>
            ))}
        </Command.Group>
        <Command.Group heading="Children" className={heading}>
          {children.data
            ?.filter((child) => !child.archived)
            .map((child) => (
              <Command.Item
                key={child.id}
                value={`${child.name} ${child.id}`}
                onSelect={go(`/child/${child.id}`)}
                className={item}
              >
                {child.name}
                <span className="text-soft">{classOf(child.classId)}</span>
              </Command.Item>
            ))}
        </Command.Group>
        <Command.Group heading="Texts" className={heading}>
          {texts.data?.map((text) => (
            <Command.Item
              key={text.id}
              value={`text ${text.title} ${text.id}`}
              onSelect={go(`/texts/${text.id}`)}
              className={item}
            >
              {text.title}
              {text.own && <span className="text-soft">ours</span>}
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}

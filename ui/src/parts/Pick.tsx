// One of a list that is too long for chips.
import { ChevronDown } from "lucide-react";
import {
  Button,
  ComboBox,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Popover,
  Select,
  SelectValue,
} from "react-aria-components";
import { styled } from "styled-components";
import { Box } from "./Box";

const Shut = styled(Box)`
  .field {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: var(--s2);
    text-align: left;
    cursor: pointer;
  }
  .value {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .typed {
    position: relative;
  }
  .typed button {
    position: absolute;
    inset: 0 0 0 auto;
    width: 38px;
    display: grid;
    place-items: center;
    color: inherit;
    border: 0;
    background: none;
    cursor: pointer;
  }
  .typed input {
    padding-right: 38px;
  }
`;

const Open = styled(Popover)`
  width: var(--trigger-width);
  min-width: 200px;
  max-height: 320px !important;
  overflow: auto;
  background: var(--card);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: var(--r1);
  box-shadow: 0 8px 28px rgb(0 0 0 / 18%);
  padding: var(--s1);
  [role="option"] {
    padding: 9px 11px;
    min-height: var(--touch);
    border-radius: 7px;
    cursor: pointer;
  }
  [data-focused] {
    background: var(--accent-soft);
    outline: none;
  }
  [data-selected] {
    font-weight: 620;
    color: var(--accent);
  }
`;

/** The key of "none": an empty one is not allowed. */
const nothing = "none";

interface Props<T extends string> {
  label: string;
  value: T | undefined;
  options: readonly T[];
  onPick: (v: T | undefined) => void;
  describe?: (v: T) => string;
  /** What it is called when nothing is chosen. */
  none: string;
}

function useItems<T extends string>({ options, describe, none }: Props<T>) {
  const items = options.map((o) => ({ id: o as string, name: describe ? describe(o) : o }));
  return [{ id: nothing, name: none }, ...items];
}

const option = (o: { id: string; name: string }) => (
  <ListBoxItem id={o.id} textValue={o.name}>
    {o.name}
  </ListBoxItem>
);

/** One of a list; typing the first letters goes to it. */
export function Pick<T extends string>(props: Props<T>) {
  const items = useItems(props);
  return (
    <Select
      value={props.value ?? nothing}
      onChange={(k) => props.onPick(k === nothing || k === null ? undefined : (k as T))}
    >
      <Shut>
        <Label>{props.label}</Label>
        <Button className="field">
          <SelectValue className="value">{({ selectedText }) => selectedText || props.none}</SelectValue>
          <ChevronDown size={16} aria-hidden />
        </Button>
      </Shut>
      <Open>
        <ListBox items={items}>{option}</ListBox>
      </Open>
    </Select>
  );
}

/** One of a long list, found by typing a part of its name. */
export function Search<T extends string>(props: Props<T>) {
  const items = useItems(props).slice(1);
  return (
    <ComboBox
      defaultItems={items}
      selectedKey={props.value ?? null}
      onSelectionChange={(k) => props.onPick(k === null ? undefined : (k as T))}
      menuTrigger="focus"
      isDisabled={!items.length}
    >
      <Shut>
        <Label>{props.label}</Label>
        <div className="typed">
          <Input placeholder={props.none} />
          <Button aria-label={`Show all: ${props.label}`}>
            <ChevronDown size={16} aria-hidden />
          </Button>
        </div>
      </Shut>
      <Open>
        <ListBox>{option}</ListBox>
      </Open>
    </ComboBox>
  );
}

import { useQuery } from '@tanstack/react-query';
import type { PageRule } from '@velarium/contract';
import { pageRuleSchema } from '@velarium/contract';
import { pageWords, patternFault, usualFolder } from '@velarium/core';
import { X } from 'lucide-react';
import { sitePagesQuery } from '../../api/queries.ts';
import { useNames } from '../../board/use-names.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { CheckedField } from '../../ui/checked-field.tsx';
import { Menu } from '../../ui/menu.tsx';
import { PageFinder } from './page-finder.tsx';

/** Kinds of rules that are written rather than chosen, with what they begin as on a site of this folder. */
const written = (folder: string): readonly { readonly label: string; readonly rule: PageRule }[] => [
  { label: 'Address begins with …', rule: { kind: 'begins', address: `/${folder}/` } },
  { label: 'Address contains …', rule: { kind: 'contains', text: folder } },
  { label: 'Address like a pattern with *', rule: { kind: 'wildcard', pattern: `/${folder}/*` } },
  { label: 'Address matches a regular expression', rule: { kind: 'regex', pattern: `^/${folder}/[^/]+$` } },
  { label: 'Has a query parameter', rule: { kind: 'parameter', name: 'q', value: null } },
  { label: 'Holds an element', rule: { kind: 'holds', selector: 'h1' } },
];

export interface RuleListProps {
  readonly label: string;
  readonly siteId: string;
  readonly rules: readonly PageRule[];
  readonly hasGroups?: boolean;
  readonly onAdd: (rule: PageRule) => void;
  readonly onRemove: (at: number) => void;
  readonly onSet: (at: number, rule: PageRule) => void;
}

/** One list of page rules: what is in it, and the ways to add to it. */
export function RuleList(props: RuleListProps) {
  const { label, siteId, rules, hasGroups = true, onAdd, onRemove, onSet } = props;
  const names = useNames(siteId);
  const { data: pages = [] } = useQuery(sitePagesQuery(siteId));
  const titleOf = (rule: PageRule) =>
    rule.kind === 'exact' ? pages.find(({ path }) => path === rule.address)?.title : undefined;
  return (
    <fieldset className="grid gap-2">
      <legend className="mb-1 font-medium">{label}</legend>
      {rules.length > 0 && (
        <ol aria-label={label} className="grid gap-px">
          {rules.map((rule, at) => {
            const title = titleOf(rule);
            const words = pageWords(rule, names);
            return (
              // Rules have no name of their own; where they stand is what they are told by.
              // biome-ignore lint/suspicious/noArrayIndexKey: see above.
              <li key={`${rule.kind}-${at}`} className="border-b border-line bg-sheet px-2">
                <div className="flex items-center gap-2">
                  <span className="w-4 flex-none text-right text-xs text-soft tabular-nums">{at + 1}</span>
                  <span className="min-w-0 flex-1 truncate py-1.5" title={words}>
                    {title ?? words}
                    {title && <span className="ml-2 text-xs text-soft">{words}</span>}
                  </span>
                  <IconButton label={`Remove ${title ?? words}`} onClick={() => onRemove(at)}>
                    <X size={13} aria-hidden />
                  </IconButton>
                </div>
                <RuleFields rule={rule} onChange={(next) => onSet(at, next)} />
              </li>
            );
          })}
        </ol>
      )}
      <PageFinder
        siteId={siteId}
        hasGroups={hasGroups}
        named={rules}
        onAdd={onAdd}
        onRemoveLast={() => rules.length > 0 && onRemove(rules.length - 1)}
      />
      <Menu
        items={written(usualFolder(pages) ?? 'page').map(({ label: name, rule }) => ({
          label: name,
          onSelect: () => onAdd(rule),
        }))}
      >
        <Button className="h-7 justify-self-start">Another kind of rule</Button>
      </Menu>
    </fieldset>
  );
}

interface RuleFieldsProps {
  readonly rule: PageRule;
  readonly onChange: (rule: PageRule) => void;
}

/** What is written of a rule, for the kinds that are written. */
function RuleFields({ rule, onChange }: RuleFieldsProps) {
  switch (rule.kind) {
    case 'begins':
      return (
        <Written
          label="Begins with"
          value={rule.address}
          of={(address) => ({ ...rule, address })}
          onChange={onChange}
        />
      );
    case 'contains':
      return (
        <Written label="Contains" value={rule.text} of={(text) => ({ ...rule, text })} onChange={onChange} />
      );
    case 'wildcard':
      return (
        <Written
          label="Pattern; * is anything but /, ** is anything"
          value={rule.pattern}
          of={(pattern) => ({ ...rule, pattern })}
          onChange={onChange}
        />
      );
    case 'regex':
      return (
        <Written
          label="Regular expression"
          value={rule.pattern}
          of={(pattern) => ({ ...rule, pattern })}
          onChange={onChange}
        />
      );
    case 'parameter':
      return (
        <div className="grid grid-cols-2 gap-2">
          <Written
            label="Parameter"
            value={rule.name}
            of={(name) => ({ ...rule, name })}
            onChange={onChange}
          />
          <Written
            label="Being (empty: any)"
            value={rule.value ?? ''}
            of={(value) => ({ ...rule, value: value === '' ? null : value })}
            onChange={onChange}
          />
        </div>
      );
    case 'holds':
      return (
        <Written
          label="Selector"
          value={rule.selector}
          of={(selector) => ({ ...rule, selector })}
          onChange={onChange}
        />
      );
    default:
      return null;
  }
}

interface WrittenProps extends Pick<RuleFieldsProps, 'onChange'> {
  readonly label: string;
  readonly value: string;
  readonly of: (text: string) => PageRule;
}

/** A text of a rule, as the contract and the patterns take it. */
const Written = ({ label, value, of, onChange }: WrittenProps) => (
  <CheckedField
    className="pb-2"
    label={label}
    value={value}
    faultOf={(text) => {
      const read = pageRuleSchema.safeParse(of(text));
      return read.success ? patternFault(read.data)?.why : (read.error.issues[0]?.message ?? 'write it anew');
    }}
    onChange={(text) => onChange(of(text))}
  />
);

import type { Campaign, CampaignDocument, CampaignState, Message, Rule } from '@velarium/contract';
import { isSame, mergeDocuments } from '@velarium/core';
import { createContext, useContext, useDeferredValue } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';

/** Edits under one key this close together are one step of undo: a word typed, a mark dragged. */
const MERGE_MS = 900;

export type SaveStatus = 'saved' | 'unsaved' | 'saving' | 'waiting' | 'refused' | 'conflict';
/** Which devices a style is set for. */
export type Scope = 'all' | 'tablet' | 'mobile';

/** How the stage shows the message; none of it is the campaign's. */
export interface StageView {
  /** Desktop and phone side by side, or a tablet. */
  readonly shows: 'pair' | 'tablet';
  readonly ground: 'page' | 'plain';
  readonly isMessageHidden: boolean;
  /** As on a device that asks for dark pages. */
  readonly isDark: boolean;
  /** Real size, or as large as there is room. */
  readonly zoom: 'fit' | 'real';
  /** The invented visitor the texts are filled for; `null` shows the places as written, to be edited. */
  readonly visitor: number | null;
  /** The language it is read in; `null` as it was written, to be edited. */
  readonly language: string | null;
}

export type Side = 'message' | 'moment' | 'reach' | 'limits';

export interface WorkbenchState {
  readonly id: string;
  readonly siteId: string;
  readonly name: string;
  /** For the team. */
  readonly note: string;
  readonly campaignState: CampaignState;
  /** A viewer looks at everything and changes nothing. */
  readonly canEdit: boolean;
  readonly document: CampaignDocument;
  /** The server's count of saves that `document` grew from. */
  readonly revision: number;
  readonly savedDocument: CampaignDocument;
  /** What the campaign would say had nothing been changed here: as it was opened, with what others have saved since. */
  readonly groundDocument: CampaignDocument;
  /** Whether the server's draft says something the published version does not. */
  readonly hasUnpublishedChanges: boolean;
  readonly status: SaveStatus;
  readonly past: readonly CampaignDocument[];
  readonly future: readonly CampaignDocument[];
  readonly side: Side;
  readonly stepId: string;
  readonly selectedBlock: string | null;
  readonly scope: Scope;
  readonly stage: StageView;
  /** What the stage shows instead of the message, while somebody thinks about taking it. */
  readonly tried: Message | null;
  editMessage(change: (message: Message) => Message, key: string): void;
  editRule(change: (rule: Rule) => Rule, key: string): void;
  /** Changes message and rule together, as one step of undo. */
  setDocument(change: (document: CampaignDocument) => CampaignDocument): void;
  undo(): void;
  redo(): void;
  setStatus(status: SaveStatus): void;
  /** Takes what was sent: the person may have typed on while the request was under way. */
  markSaved(saved: CampaignDocument, revision: number): void;
  /** Takes over what the server says of everything but the draft. */
  takeServer(campaign: Campaign): void;
  /** Throws away unsaved edits for the server's draft; they stay reachable by undo. */
  takeTheirs(campaign: Campaign): void;
  /** Goes on from the server's draft with what two people's changes come to together; yours stay reachable by undo. */
  takeTogether(campaign: Campaign, together: CampaignDocument): void;
  openSide(side: Side): void;
  showStep(stepId: string): void;
  select(blockId: string | null): void;
  setScope(scope: Scope): void;
  setStage(change: Partial<StageView>): void;
  tryOn(message: Message | null): void;
}
export type WorkbenchStore = StoreApi<WorkbenchState>;

/** What was changed here and stands in theirs as well stays ours: whoever replaces it later has replaced our change. */
const groundAfter = (ground: CampaignDocument, mine: CampaignDocument, theirs: CampaignDocument) =>
  mergeDocuments(mine, theirs, ground).merged;

export function createWorkbenchStore(
  campaign: Campaign,
  {
    canEdit = true,
    now = Date.now,
    kept,
    stage,
  }: {
    canEdit?: boolean;
    now?: () => number;
    /** How messages were looked at the last time. */
    stage?: Partial<StageView>;
    /** What a reload left. */
    kept?: Pick<WorkbenchState, 'document' | 'past' | 'future'> | undefined;
  } = {},
): WorkbenchStore {
  let lastKey = '';
  let lastAtMs = 0;
  return createStore<WorkbenchState>((set, get) => {
    const edit = (document: CampaignDocument, key: string) => {
      // A field that is left says once more what it holds.
      if (!canEdit || isSame(document, get().document)) return;
      const isMerged = key === lastKey && now() - lastAtMs < MERGE_MS && get().past.length > 0;
      lastKey = key;
      lastAtMs = now();
      set(({ past, document: before, status }) => ({
        document,
        past: isMerged ? past : [...past, before],
        future: [],
        status: status === 'conflict' ? status : 'unsaved',
      }));
    };
    return {
      id: campaign.id,
      siteId: campaign.siteId,
      name: campaign.name,
      note: campaign.note,
      campaignState: campaign.state,
      canEdit,
      document: kept?.document ?? campaign.document,
      savedDocument: campaign.document,
      groundDocument: campaign.document,
      hasUnpublishedChanges: campaign.hasUnpublishedChanges,
      revision: campaign.revision,
      status: kept && kept.document !== campaign.document ? 'unsaved' : 'saved',
      past: kept?.past ?? [],
      future: kept?.future ?? [],
      side: 'message',
      stepId: campaign.document.message.steps[0]?.id ?? '',
      selectedBlock: null,
      scope: 'all',
      stage: {
        shows: 'pair',
        ground: 'page',
        isMessageHidden: false,
        isDark: false,
        zoom: 'fit',
        visitor: null,
        language: null,
        ...stage,
      },
      tried: null,
      editMessage(change, key) {
        const { document } = get();
        const message = change(document.message);
        if (message !== document.message) edit({ ...document, message }, key);
      },
      editRule(change, key) {
        const { document } = get();
        const rule = change(document.rule);
        if (rule !== document.rule) edit({ ...document, rule }, key);
      },
      setDocument: (change) => edit(change(get().document), `document.${now()}`),
      undo() {
        lastKey = '';
        const { past, future, document } = get();
        const before = past.at(-1);
        if (before)
          set({
            document: before,
            past: past.slice(0, -1),
            future: [document, ...future],
            status: 'unsaved',
          });
      },
      redo() {
        lastKey = '';
        const { past, future, document } = get();
        const [after, ...rest] = future;
        if (after) set({ document: after, past: [...past, document], future: rest, status: 'unsaved' });
      },
      setStatus: (status) => set({ status }),
      markSaved: (saved, revision) =>
        set(({ document }) => ({
          savedDocument: saved,
          revision,
          status: document === saved ? 'saved' : 'unsaved',
        })),
      takeServer: ({ name, note, state, hasUnpublishedChanges }) =>
        set({ name, note, campaignState: state, hasUnpublishedChanges }),
      takeTheirs: (theirs) =>
        set(({ past, document, groundDocument }) => ({
          document: theirs.document,
          savedDocument: theirs.document,
          groundDocument: groundAfter(groundDocument, document, theirs.document),
          hasUnpublishedChanges: theirs.hasUnpublishedChanges,
          revision: theirs.revision,
          past: [...past, document],
          future: [],
          status: 'saved',
        })),
      takeTogether: (theirs, together) =>
        set(({ past, document, groundDocument }) => ({
          document: together,
          savedDocument: theirs.document,
          groundDocument: groundAfter(groundDocument, document, theirs.document),
          hasUnpublishedChanges: theirs.hasUnpublishedChanges,
          revision: theirs.revision,
          past: [...past, document],
          future: [],
          status: 'unsaved',
        })),
      openSide: (side) => set({ side }),
      showStep: (stepId) => set({ stepId, selectedBlock: null }),
      select: (selectedBlock) => set({ selectedBlock }),
      // What is set is seen: the stage shows the device it is set for.
      setScope: (scope) =>
        set(({ stage }) => ({
          scope,
          stage: scope === 'all' ? stage : { ...stage, shows: scope === 'tablet' ? 'tablet' : 'pair' },
        })),
      setStage: (change) => set(({ stage }) => ({ stage: { ...stage, ...change } })),
      tryOn: (tried) => set({ tried }),
    };
  });
}

/** Visitors meet a published version, and the draft says something else by now, saved or not. */
export const hasEdits = (state: WorkbenchState): boolean =>
  state.hasUnpublishedChanges || (state.campaignState !== 'draft' && state.document !== state.savedDocument);

const WorkbenchContext = createContext<WorkbenchStore | null>(null);
export const WorkbenchProvider = WorkbenchContext.Provider;

/** The store itself, for event handlers. */
export function useWorkbenchStore(): WorkbenchStore {
  const store = useContext(WorkbenchContext);
  if (!store) throw new Error('useWorkbenchStore: expected a WorkbenchProvider above, found none');
  return store;
}
export function useWorkbench<Picked>(pick: (state: WorkbenchState) => Picked): Picked {
  return useStore(useWorkbenchStore(), pick);
}
/** The same a moment later: for what may follow typing instead of holding it up. */
export function useWorkbenchLater<Picked>(pick: (state: WorkbenchState) => Picked): Picked {
  return useDeferredValue(useWorkbench(pick));
}

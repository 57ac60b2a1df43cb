'use client';

import { useState } from 'react';
import type { DrawingLies } from '@/core/cutting/page-move';
import { leadingEdge, rollMove } from '@/core/cutting/roll-move';
import { inverseOf, type Affine, type Point } from '@/core/geometry/affine';
import { NO_ERROR, type ErrorParameters } from '@/core/geometry/error-parameters';
import type { Load } from '@/core/geometry/load';
import type { PlaneMove } from '@/core/geometry/plane-move';
import type { DrawnGroup, GroupBy, Survey } from '@/workers/cut-file.client';
import type { CutFileToolView } from './cut-file-view';
import { likelyCentre, likelyRole, savedMove, typedMove, wholeBox, type Role } from './cut-file-move';

type Roles = Readonly<Record<GroupBy, Readonly<Record<string, Role>>>>;
type PageMap = Affine<'page', 'page'>;
/** What is saved for the setup, figures typed here, or the drift of a roll. */
export type Source = 'saved' | 'typed' | 'roll';

function firstRoles(survey: Survey): Roles {
  const of = (by: GroupBy) =>
    Object.fromEntries(survey.groups.filter((g) => g.by === by).map((g) => [g.name, likelyRole(g)]));
  return { colour: of('colour'), layer: of('layer') };
}

/** What was chosen for one drawing: which lines, from where the move comes, about which middle. */
export interface Chosen {
  readonly by: GroupBy;
  readonly roles: Readonly<Record<string, Role>>;
  readonly source: Source;
  readonly load: Load;
  readonly centre: Point<'page'>;
  readonly hasMarks: boolean;
  readonly movesPrint: boolean;
  /** Null while something typed is no number. */
  readonly move: PlaneMove | null;
  readonly moving: Role;
  readonly names: readonly string[];
  readonly setBy: (by: GroupBy) => void;
  readonly setRole: (name: string, role: Role) => void;
  readonly setSource: (source: Source) => void;
  readonly setError: (error: ErrorParameters | null) => void;
  readonly setLoad: (load: Load) => void;
  readonly setCentre: (centre: Point<'page'>) => void;
  readonly setMovesPrint: (movesPrint: boolean) => void;
}

interface Asked {
  readonly view: CutFileToolView;
  readonly source: Chosen['source'];
  readonly error: ErrorParameters | null;
  readonly load: Load;
  readonly centre: Point<'page'>;
}

function cutMoveOf({ view, source, error, load, centre }: Asked): PlaneMove | null {
  if (source === 'roll' && view.roll) return rollMove(view.roll.error, view.axes, centre);
  const affine = affineMoveOf({ view, source, error, load, centre });
  return affine && { affine };
}

function affineMoveOf({ view, source, error, load, centre }: Asked): PageMap | null {
  const saved = view.saved?.correction ?? null;
  if (source === 'typed' || !saved) return error && typedMove(error, centre);
  const lies: DrawingLies = view.axes ? { kind: 'by-axes', axes: view.axes } : { kind: 'on-sheet', load };
  return savedMove(saved, lies, centre);
}

const firstSource = ({ roll, saved }: CutFileToolView): Source => {
  if (roll) return 'roll';
  return saved?.correction ? 'saved' : 'typed';
};

/** The choices for one drawing; every change is told, because a file made before no longer fits. */
export function useCorrection(view: CutFileToolView, survey: Survey, onChange: () => void): Chosen {
  const [by, setBy] = useState<GroupBy>('colour');
  const [allRoles, setRoles] = useState<Roles>(() => firstRoles(survey));
  const [source, setSource] = useState<Source>(firstSource(view));
  const [error, setError] = useState<ErrorParameters | null>(NO_ERROR);
  const [load, setLoad] = useState<Load>(view.load);
  const [ownCentre, setOwnCentre] = useState<Point<'page'> | null>(null);
  const [movesPrint, setMovesPrint] = useState(view.isTraced);
  const roles = allRoles[by];
  const inRole = (role: Role): readonly DrawnGroup[] =>
    survey.groups.filter((g) => g.by === by && roles[g.name] === role);
  const marks = inRole('marks');
  const centre =
    ownCentre ?? (source === 'roll' ? leadingEdge(wholeBox(survey), view.axes) : likelyCentre(survey, marks));
  const cutMove = cutMoveOf({ view, source, error, load, centre });
  const moving: Role = movesPrint ? 'stays' : 'cut';
  const told =
    <T>(set: (value: T) => void) =>
    (value: T): void => {
      set(value);
      onChange();
    };
  return {
    by,
    roles,
    source,
    load,
    centre,
    hasMarks: marks.length > 0,
    movesPrint,
    move: cutMove && movesPrint ? { affine: inverseOf(cutMove.affine) } : cutMove,
    moving,
    names: inRole(moving).map((g) => g.name),
    setBy: told(setBy),
    setRole: (name, role) => {
      setRoles({ ...allRoles, [by]: { ...roles, [name]: role } });
      onChange();
    },
    setSource: told(setSource),
    setError: told(setError),
    setLoad: told(setLoad),
    setCentre: told(setOwnCentre),
    setMovesPrint: told(setMovesPrint),
  };
}

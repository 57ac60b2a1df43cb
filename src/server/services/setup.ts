import 'server-only';
import type { MachineSetting } from '@/core/setting/machine-setting';
import { isOffset } from '@/core/setting/machine-setting';
import type { FeedDirection } from '@/core/geometry/load';
import type { Database } from '@/db/client';
import { findLastMaterial } from '@/db/queries/bench';
import { findSettings, ownersOf } from '@/db/queries/settings';
import { findMaterials, findSetup } from '@/db/queries/shop';
import { decideRoute } from '@/core/shop/decide-route';
import type { MarkSpace, PageChoice } from '@/core/target/block';
import type { FigureStyle } from '@/core/target/sheet-definition';
import { testable } from '@/core/setting/which-way';
import { testTakes } from './which-way';
import { MARK_USE_WORDS, type Family } from '@/core/shop/words';
import { markTestHint } from './mark-use';
import { markSpaceFor } from './setup-marks';
import { moveWords, settingValueWords } from './words';
import { usualCutLine } from './usual-cut-line';

export interface SetupView {
  readonly name: string;
  readonly machines: string;
  readonly page: PageChoice;
  readonly marks: MarkSpace;
  /** Figures that the program's route asks for, before a way to make the lines visible is chosen. */
  readonly style: FigureStyle;
  readonly sets: 1 | 2;
  readonly family: Family;
  readonly toleranceMm: number;
  readonly materials: readonly { readonly id: string; readonly name: string; readonly finish: string }[];
  readonly lastMaterialId: string | null;
  readonly settings: readonly {
    readonly id: string;
    readonly name: string;
    readonly value: string;
    readonly plusWords: string;
    readonly range: string;
  }[];
  /** Names of the settings whose direction a test would tell, and what that takes; no names: nothing to learn. */
  readonly toLearn: readonly string[];
  readonly testTakes: string;
  /** Work printed on both sides, whose back can be measured against its front. */
  readonly isTwoFaced: boolean;
  readonly markTest: {
    /** What its marks are used for, in words; "not known yet" is the default. */
    readonly useWords: string;
    /** Why it cannot be tested; null when it can. */
    readonly problem: string | null;
    /** Our own marks are moved in the file; a program's by its inset. */
    readonly isOurs: boolean;
  };
}

function plusWords(setting: MachineSetting, feed: FeedDirection): string {
  if (setting.sense === null) return 'direction not known yet';
  const change = { setting, before: 0, after: isOffset(setting) ? 1 : setting.step, toType: 0, isAtLimit: false };
  return moveWords(change, feed);
}

export async function readSetup(database: Database, id: string): Promise<SetupView | null> {
  const found = await findSetup(database, id);
  if (!found) return null;
  const { printMode } = found;
  const { style, sets } = decideRoute(found.program, found.setup.family);
  const [materials, lastMaterialId, settings, markProblem] = await Promise.all([
    findMaterials(database, found.setup.shopId),
    findLastMaterial(database, id),
    findSettings(database, ownersOf(found), { x: 0, y: 0 }),
    markTestHint(database, found),
  ]);
  return {
    name: found.setup.name,
    machines: [found.printer.name, found.printMode.name, found.program?.name, found.cutter.name]
      .filter(Boolean)
      .join(', '),
    page: { name: printMode.page, widthMm: printMode.pageWidthMm, lengthMm: printMode.pageLengthMm },
    marks: markSpaceFor(found),
    style,
    sets,
    family: found.setup.family,
    toleranceMm: found.setup.toleranceMm,
    materials: materials.map((m) => ({ id: m.id, name: m.name, finish: m.finish, cutLine: usualCutLine(m) })),
    lastMaterialId,
    settings: settings.map((s) => ({
      id: s.id,
      name: s.isInProgram ? `${s.displayName} (in the program)` : s.displayName,
      value: settingValueWords(s, s.value),
      plusWords: plusWords(s, found.cutter.feeds),
      range: `${settingValueWords(s, s.minValue)} to ${settingValueWords(s, s.maxValue)}`,
    })),
    toLearn: testable(settings).map((s) => s.displayName),
    testTakes: testTakes(sets, testable(settings)),
    isTwoFaced: found.setup.family === 'F6',
    markTest: {
      useWords: MARK_USE_WORDS[found.cutter.markUse],
      problem: markProblem,
      isOurs: found.setup.route === 'D',
    },
  };
}

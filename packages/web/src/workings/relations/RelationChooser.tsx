import { type RelationKey, type TriedRelation } from '@heuristor/core';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import {
  useDialog,
  useDocuments,
  useFrontRun,
  useNameables,
  useNames,
  useSession,
} from '../../investigation/context';
import { type DialogSubjects } from '../../investigation/dialogs';
import { withEntry } from '../edits';
import { boundFormula, namedFormula, parametersFor } from '../formulas/formulas';
import { type TriedPoints } from '../../workers/protocol';
import { Palette } from '../../ui/Palette';
import { SmallFit } from './SmallFit';
import { written } from '../../ui/numberText';

export function RelationChooser() {
  const asked = useDialog('relations');
  return asked === undefined ? null : <OpenChooser asked={asked} />;
}

/** Relations drawn through the very points, the one first that explains them best. */
function OpenChooser({ asked }: { asked: DialogSubjects['relations'] }) {
  const session = useSession();
  const { close } = session.dialogs;
  const nameOf = useNames();
  const known = useNameables('');
  const front = useFrontRun();
  const region = useDocuments(({ workings }) => workings.entries.find(({ id }) => id === asked.region));
  const [tried, setTried] = useState<TriedPoints | { fault: string } | null>(null);
  useEffect(() => {
    let isWanted = true;
    if (front === undefined) return;
    const { of, against, region: regionId } = asked;
    const about = { workings: session.workings, of, against, region: regionId };
    session.pool.demand(front.id, 'relations', about).then(
      (found) => {
        if (isWanted) setTried(found);
      },
      (error: unknown) => {
        if (isWanted) setTried({ fault: error instanceof Error ? error.message : String(error) });
      },
    );
    return () => {
      isWanted = false;
    };
  }, [session, front, asked]);
  const take = (relation: RelationKey) => {
    close();
    if (asked.entry !== null) session.changeEntry(asked.entry, { relation });
    else
      session.changeWorkings(
        (workings) =>
          withEntry(workings, session.onPage, {
            kind: 'fit',
            preset: { relation, against: asked.against },
            of: asked.of,
            region: asked.region,
          }).workings,
      );
  };
  const takeFormula = (typed: string) => {
    close();
    const formula = boundFormula(namedFormula(typed).text, { text: '', names: {} }, known);
    session.changeWorkings((workings) => {
      const made = withEntry(workings, session.onPage, {
        kind: 'formulaFit',
        preset: {
          against: asked.against,
          ...(looksLikeFormula(typed) ? { formula, parameters: parametersFor(formula, {}, known) } : {}),
        },
        of: asked.of,
        region: asked.region,
      });
      session.viewing.openEntry(made.id);
      return made.workings;
    });
  };
  const all = tried !== null && 'relations' in tried ? tried.relations : [];
  const matching = (typed: string) =>
    looksLikeFormula(typed) ? [] : called(typed.trim().toLowerCase(), all);
  const letter = region?.kind === 'region' ? ` in ${region.letter}` : '';
  const takeFirst = (typed: string) => {
    const first = matching(typed).find(({ found }) => found.kind === 'fitted');
    if (first !== undefined) take(first.key);
    else if (typed.trim() !== '') takeFormula(typed);
  };
  return (
    <Palette
      title={
        <>
          Relations through {nameOf(asked.of)} against {nameOf(asked.against)}
          {letter}
        </>
      }
      label="Name of a relation, or a formula"
      placeholder="Type a name, or a formula like A exp(-t/tau)"
      size="xl"
      isTypedAtOnce
      onClose={close}
      onEnter={takeFirst}
      beside={(typed) =>
        asked.entry === null && (
          <Button variant="plain" onClick={() => takeFormula(typed)}>
            {looksLikeFormula(typed) ? 'Fit this formula' : 'Fit a formula'}
          </Button>
        )
      }
    >
      {(typed) => (
        <>
          {tried === null && <p className="quiet">Every relation is tried on these points …</p>}
          {tried !== null && 'fault' in tried && <p className="refused">{tried.fault}</p>}
          {tried !== null && 'relations' in tried && (
            <>
              <p className="quiet small">
                In order of how well they explain {front?.name}, each parameter counted (AICc of{' '}
                {tried.x.length} points). Under each its residuals: dots without a pattern are noise.
              </p>
              <div className="relation-grid">
                {matching(typed).map((one) => (
                  <Choice key={one.key} points={tried} tried={one} onTake={() => take(one.key)} />
                ))}
              </div>
              <Refused all={matching(typed)} />
              {matching(typed).length === 0 && !looksLikeFormula(typed) && (
                <p className="quiet">No relation has this name. A formula can be fitted as it is typed.</p>
              )}
            </>
          )}
        </>
      )}
    </Palette>
  );
}

/** Relations in whose names some words stand; the one that is called just so comes first, however well others explain the points. */
function called(words: string, all: readonly TriedRelation[]): TriedRelation[] {
  const found = all.filter(({ title }) => title.toLowerCase().includes(words));
  const [own, others] = [true, false].map((isOwn) =>
    found.filter(({ title }) => (title.toLowerCase() === words) === isOwn),
  );
  return [...own, ...others];
}

const looksLikeFormula = (text: string) => /[=+*/^()·]|[−-]\s*\S/.test(text) && /\p{L}/u.test(text);

function Choice({
  points,
  tried,
  onTake,
}: {
  points: TriedPoints;
  tried: TriedRelation;
  onTake: () => void;
}) {
  const { title, found } = tried;
  if (found.kind === 'refused') return null;
  return (
    <button type="button" className="relation-choice" onClick={onTake} data-relation={tried.key}>
      <span className="relation-drawing">
        <SmallFit x={points.x} y={points.y} fitted={found} />
      </span>
      <strong>{title}</strong>
      <span className="quiet small">
        {verdict(found.gap)}
        {found.hasPattern ? '; the residuals follow a pattern' : ''}
      </span>
    </button>
  );
}

/** Relations that these points do not carry, with the reason, in as little room as they deserve. */
function Refused({ all }: { all: readonly TriedRelation[] }) {
  const refused = all.flatMap(({ title, found }) =>
    found.kind === 'refused' ? [{ title, sentence: found.sentence }] : [],
  );
  if (refused.length === 0) return null;
  return (
    <dl className="relations-refused">
      {refused.map(({ title, sentence }) => (
        <div key={title}>
          <dt>{title}</dt>
          <dd>{written(sentence)}</dd>
        </div>
      ))}
    </dl>
  );
}

/** What a difference of AICc means (Burnham and Anderson, Model Selection and Multimodel Inference, 2nd ed. 2002, section 2.6). */
function verdict(gap: number): string {
  if (gap === 0) return 'explains the points best';
  if (gap < 2) return 'explains them as well';
  if (gap < 7) return 'explains them less well';
  return 'explains them clearly worse';
}

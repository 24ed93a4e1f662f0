import { type RenderedRun, type RunGraph, type RunTrace, type ThinLine } from '../workers/protocol';

/** A run's part with every line in it. */
export interface CompleteRun extends Pick<RenderedRun, 'runId'> {
  traces: Record<string, CompleteTrace>;
  residuals: Record<string, CompleteTrace>;
  graphs: Record<string, CompleteGraph>;
}

export interface CompleteGraph extends RunGraph {
  line: ThinLine;
}

export interface CompleteTrace extends RunTrace {
  line: ThinLine;
}

/** The lines that workers sent last, for those that they leave out because nothing has changed. */
export class KnownLines {
  /** By run, then by trace. */
  private known = new Map<string, Map<string, ThinLine>>();

  /** The runs with all their lines, or null where one that was left out is not known: then all must be sent again. */
  complete(rendered: readonly RenderedRun[]): CompleteRun[] | null {
    const known = new Map<string, Map<string, ThinLine>>();
    let isWhole = true;
    const filled = <T extends { line: ThinLine | null }>(
      runId: string,
      kind: string,
      traces: Partial<Record<string, T>>,
    ): Record<string, T & { line: ThinLine }> => {
      const lines = known.get(runId) ?? new Map<string, ThinLine>();
      known.set(runId, lines);
      const complete: Record<string, T & { line: ThinLine }> = {};
      for (const [name, trace] of Object.entries(traces)) {
        if (trace === undefined) continue;
        const key = `${kind} ${name}`;
        const line = trace.line ?? this.known.get(runId)?.get(key);
        if (line === undefined) {
          isWhole = false;
          continue;
        }
        lines.set(key, line);
        complete[name] = { ...trace, line };
      }
      return complete;
    };
    const runs = rendered.map(({ runId, traces, residuals, graphs }) => ({
      runId,
      traces: filled(runId, 'trace', traces),
      residuals: filled(runId, 'residuals', residuals),
      graphs: filled(runId, 'graph', graphs),
    }));
    this.known = known;
    return isWhole ? runs : null;
  }
}

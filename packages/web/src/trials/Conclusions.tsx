import { WorkingsColumn } from '../workings/WorkingsColumn';
import { BenchConstant } from './BenchConstant';

/** What is worked out from the table: fits through its points, constants, results by formulas, comparisons. */
export const Conclusions = () => (
  <>
    <WorkingsColumn
      title="Conclusions"
      ofRuns={false}
      empty="Choose a relation for the plot. Its slope and the other numbers stand here; a result by a formula makes of them what you are after, and a comparison holds that against an accepted value."
    />
    <div>
      <BenchConstant />
    </div>
  </>
);

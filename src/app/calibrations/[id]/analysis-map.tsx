import { viewTurnOf } from '@/core/geometry/load';
import type { Analysis } from '@/server/services/analysis';
import type { CalibrationRecord } from '@/server/services/record';
import { ErrorMap } from '@/ui/map/ErrorMap';

/** The error map of an analysis, lying as the sheet lay in the machine. */
export function AnalysisMap({ record, analysis }: { readonly record: CalibrationRecord; readonly analysis: Analysis }) {
  const { fit, bounds, load } = analysis;
  const allowed = record.calibration.toleranceMm.toFixed(2);
  return (
    <ErrorMap
      definition={record.definition}
      code={record.code}
      map={fit.map}
      covariance={[...fit.covariance]}
      corners={record.corners}
      worstCorner={bounds.worstCorner}
      largestMm={bounds.upperMm}
      turnDeg={viewTurnOf(load, record.setupRow.cutter.feeds)}
      label={`Error map: worst corner ${bounds.worstMm.toFixed(2)} mm, ${allowed} mm allowed`}
    />
  );
}

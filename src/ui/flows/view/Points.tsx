export interface Point {
  readonly mark: 'good' | 'warning' | 'error';
  readonly says: string;
}

const MARKS: Record<Point['mark'], { readonly glyph: string; readonly tone: string }> = {
  good: { glyph: '✓', tone: 'in-moss' },
  warning: { glyph: '◆', tone: 'in-brass' },
  error: { glyph: '■', tone: 'in-brick' },
};

/** What stands for or against a release, worst first. */
export function Points({ points }: { readonly points: readonly Point[] }) {
  const order = ['error', 'warning', 'good'];
  return (
    <div>
      {[...points]
        .sort((a, b) => order.indexOf(a.mark) - order.indexOf(b.mark))
        .map((point, i) => (
          <p key={i} className="point">
            <span className={MARKS[point.mark].tone}>{MARKS[point.mark].glyph}</span> {point.says}
          </p>
        ))}
    </div>
  );
}

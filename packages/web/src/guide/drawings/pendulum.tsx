import { type DrawingOf } from './kind';

export const pendulum: DrawingOf = {
  title: 'A bell on a rod, swinging under a rotary sensor',
  shapes: (
    <>
      <path d="M60 14H180" />
      <circle cx="120" cy="22" r="8" />
      <path d="M120 22L152 92" />
      <path d="M120 30V98" className="faint" strokeDasharray="4 4" />
      <path d="M140 88l22 -10 6 20 -22 8z" />
      <path d="M120 66a44 44 0 0 0 20 -3" className="faint" />
      <text x="124" y="84">
        θ
      </text>
    </>
  ),
};

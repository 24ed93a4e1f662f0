/** Signs that stand on few keyboards, in the order in which a report needs them. */
export const symbols = [...'±·×÷√≈≠≤≥∝→°∆∑∞', ...'αβγδεθλμπρστφω', ...'ΔΣΦΩ'] as const;

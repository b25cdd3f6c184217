declare const spreads: {
  env: { targets: { node: string }; include: string[] };
  assumptions: Record<string, boolean>;
};
export = spreads;

export * from "./no-cycles";

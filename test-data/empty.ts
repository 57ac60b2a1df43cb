/** Stands in for packages that only mark a boundary. */
export {};

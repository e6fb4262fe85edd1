/** Where the build sheet of a line is fetched. */
export const sheetOf = (lineId: string, tube: string) => `/api/lines/${lineId}/sheet.pdf?span=${tube}`;

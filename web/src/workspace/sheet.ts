/** Where the build sheet of a line is fetched. */
export const sheetOf = (lineId: string) => `/api/lines/${lineId}/sheet.pdf`;

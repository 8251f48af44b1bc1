/** What a run says of a machine that was too busy to ask its instruments, or its database. */
export const NO_TIME =
  /tells nothing|was not answered within|onnection (to "[^"]*" |to the instrument )?was lost|The database (stopped answering|did not answer)|Another server|The server (stood still|was too slow)|nobody here switched it off/;

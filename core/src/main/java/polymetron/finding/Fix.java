package polymetron.finding;

import polymetron.edit.Edit;

/** One way to settle a finding: words for a button, and the edit behind it. */
public record Fix(String label, Edit edit) {}

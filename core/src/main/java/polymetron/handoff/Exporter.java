package polymetron.handoff;

import polymetron.software.SoftwareView;

/** Makes one file for software teams. Deterministic: the same platform gives the same text. */
interface Exporter {
    HandoffFile export(SoftwareView view, HandoffNames names);
}

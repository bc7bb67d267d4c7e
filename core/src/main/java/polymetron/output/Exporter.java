package polymetron.output;

import polymetron.software.SoftwareView;

/** Makes one file for software teams. Deterministic: the same platform gives the same text. */
public interface Exporter {
    HandoffFile export(SoftwareView view, HandoffNames names);
}

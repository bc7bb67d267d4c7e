package polymetron.handoff;

/** Makes one file for software teams. Deterministic: the same platform gives the same text. */
interface Exporter {
    HandoffFile export(SoftwareView view, String baseName, String fingerprint);
}

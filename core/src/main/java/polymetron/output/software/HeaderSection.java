package polymetron.output.software;

import java.util.List;

/**
 * Macros that belong together.
 *
 * @param title what they are about, for a comment
 */
record HeaderSection(String title, List<Macro> macros) {}

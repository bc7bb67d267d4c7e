package polymetron.edit;

import java.util.List;

/** The bus protocols that a bus can have. */
public final class Protocols {
    public static final List<String> KNOWN = List.of("axi4-lite");

    private Protocols() {}
}

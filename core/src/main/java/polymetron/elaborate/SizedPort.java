package polymetron.elaborate;

import polymetron.library.Direction;

/** An external port, with its parameters worked out. */
public record SizedPort(String name, Direction direction, int width) {}

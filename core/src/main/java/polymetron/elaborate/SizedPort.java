package polymetron.elaborate;

import polymetron.library.Direction;

/** A port that leaves the chip, with its parameters worked out. */
public record SizedPort(String name, Direction direction, int width) {}

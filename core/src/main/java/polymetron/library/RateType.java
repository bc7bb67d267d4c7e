package polymetron.library;

import polymetron.expression.Expression;

/**
 * A rate or time that follows from a block's clock and its parameters.
 *
 * <p>Beside the parameters the expressions know {@code CLOCK}, the frequency in hertz of the block's first clock, and
 * {@code INPUT}, the rate of the stream that feeds its first sink; both are real numbers.
 *
 * @param name what it is, such as {@code serial clock}
 * @param wanted requested value; null when the parameters set it directly
 * @param obtained what comes of it
 * @param unit unit of both, such as {@code Hz}, {@code Bd} or {@code s}
 * @param limitPercent largest difference from the requested value that is still good; null for none
 * @param stream source of the block that carries this rate on; null for none
 */
public record RateType(
        String name,
        Expression wanted,
        Expression obtained,
        String unit,
        Double limitPercent,
        String stream) {}

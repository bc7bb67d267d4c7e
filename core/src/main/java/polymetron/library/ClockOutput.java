package polymetron.library;

import polymetron.expression.Expression;

/**
 * A clock that a block makes: a frequency of its own, or that of one of its clock inputs times a fraction.
 *
 * @param from clock input that it is made from; null for an oscillator of its own
 * @param multiply numerator of the fraction, or the frequency in hertz where there is no input
 * @param divide denominator of the fraction; null for 1
 * @param when whether the output is there; null for always
 */
public record ClockOutput(
        String name, String from, Expression multiply, Expression divide, Expression when) {}

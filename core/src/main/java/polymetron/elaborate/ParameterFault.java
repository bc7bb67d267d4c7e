package polymetron.elaborate;

import polymetron.library.ParameterType;

/** A parameter has no value, or an impossible one; its default was used instead. */
public record ParameterFault(ParameterType parameter, String message) {}

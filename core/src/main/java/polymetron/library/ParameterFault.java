package polymetron.library;

/** A parameter has no value, or an impossible one; its default was used instead. */
public record ParameterFault(ParameterType parameter, String message) {}

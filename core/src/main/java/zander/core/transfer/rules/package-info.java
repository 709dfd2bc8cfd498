/**
 * What a person decides: rules for a transfer, patterns to leave out, and the questions it may ask.
 */
package zander.core.transfer.rules;

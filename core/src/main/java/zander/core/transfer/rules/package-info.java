/**
 * What a person decides: rules for a transfer, patterns to leave out, and the questions it may ask.
 */
@NullMarked
package zander.core.transfer.rules;

import org.jspecify.annotations.NullMarked;

/** What a selection amounts to: sizes, counts, checksums, what kind of file. */
@NullMarked
package zander.core.facts;

import org.jspecify.annotations.NullMarked;

/** What a selection amounts to: sizes, counts, checksums, what kind of file. */
package zander.core.facts;

/**
 * Rights that a folder keeps: rules by pattern that a marked folder has, read, learnt from a tree,
 * and asked what an entry should have.
 */
@NullMarked
package zander.core.kept;

import org.jspecify.annotations.NullMarked;

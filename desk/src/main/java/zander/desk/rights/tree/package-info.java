/** The rights of all that is in folders: asked for, looked at, set and put back. */
@NullMarked
package zander.desk.rights.tree;

import org.jspecify.annotations.NullMarked;

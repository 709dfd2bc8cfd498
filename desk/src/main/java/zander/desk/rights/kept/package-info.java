/** Rights that a folder keeps, as they are written, learnt, kept and looked at. */
@NullMarked
package zander.desk.rights.kept;

import org.jspecify.annotations.NullMarked;

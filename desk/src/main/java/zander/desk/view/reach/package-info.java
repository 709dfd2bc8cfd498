/** The page for reaching servers: the book, sign-ins as steps, keys, and the vault. */
@NullMarked
package zander.desk.view.reach;

import org.jspecify.annotations.NullMarked;

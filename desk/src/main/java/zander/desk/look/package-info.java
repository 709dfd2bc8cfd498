/** Fonts, colours and stylesheets. */
package zander.desk.look;

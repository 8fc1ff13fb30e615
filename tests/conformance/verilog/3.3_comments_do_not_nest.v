// IEEE 1364-2005 clause 3.3: a comment ends at the first */, and // means nothing inside of it
module t;
  /* one // two
     /* still the same comment */
  initial $display("after"); // the end of a line */ ends this one
endmodule
//> after

// IEEE 1800-2017 clause 6.18: a name of a type may stand for another one, and for an array
module t;
  typedef logic [3:0] nibble;
  typedef nibble row[2];
  typedef row table_of_rows[3];
  table_of_rows x;
  initial begin
    x = '{default: 4'h1};
    x[2][1] = 4'hf;
    $display("%p %0d", x, $bits(row));
  end
endmodule
//> '{'{1, 1}, '{1, 1}, '{1, 15}} 8

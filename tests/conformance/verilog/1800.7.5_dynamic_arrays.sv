// IEEE 1800-2017 clause 7.5: `new` gives a dynamic array its size, and keeps what is given
module t;
  int d[] = '{4, 5, 6};
  logic b[];
  initial begin
    $display("%0d %0d", d.size(), d[1]);
    d = new[5](d);
    d[4] = 8;
    $display("%p", d);
    d = new[2];
    $display("%p", d);
    d.delete();
    $display("%0d %b", d.size(), b[0]);
  end
endmodule
//> 3 5
//> '{4, 5, 6, 0, 8}
//> '{0, 0}
//> 0 x

// IEEE 1800-2017 clause 7.5.1: `new[n](old)` copies as many as there is room for
module t;
  int d[];
  initial begin
    d = new[3];
    foreach (d[i]) d[i] = i + 1;
    d = new[5](d);
    $display("%p %0d", d, d.size());
    d = new[2](d);
    $display("%p", d);
    d = new[2];
    $display("%p", d);
    d.delete();
    $display("%0d", d.size());
  end
endmodule
//> '{1, 2, 3, 0, 0} 5
//> '{1, 2}
//> '{0, 0}
//> 0

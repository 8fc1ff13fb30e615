// IEEE 1800-2017 clause 7.8.6: an element that is only read is not there afterwards
module t;
  int m[int];
  initial begin
    if (m[5] == 0) $display("%0d", m.size());
    m[5]++;
    $display("%0d %0d", m.size(), m[5]);
  end
endmodule
//> 0
//> 1 1

// IEEE 1800-2017 clause 7.6: an unpacked array as a port
module sum (input logic [7:0] a [4], output logic [9:0] y);
  always_comb begin
    y = 0;
    foreach (a[i]) y += a[i];
  end
endmodule
module t;
  logic [7:0] v [4] = '{1, 2, 3, 200};
  logic [9:0] y;
  sum u (.a(v), .y);
  initial begin
    #1 $display("%0d", y);
    v[3] = 100;
    #1 $display("%0d", y);
  end
endmodule
//> 206
//> 106

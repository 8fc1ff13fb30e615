// IEEE 1800-2017 clause 7.4.6: a read outside gives x, or 0 in two states; a write there does nothing
module t;
  int i = 4;
  logic [3:0] a [0:3];
  logic [3:0][3:0] m = 16'h4321;
  initial begin
    a = '{default: 4'h5};
    a[i] = 4'h9;
    m[i] = 4'h9;
    $display("%b %b %h %h", a[i], m[i], a[3], m);
  end
endmodule
//> xxxx xxxx 5 4321

// IEEE 1800-2017 clause 11.4.3: the result is x in four states, an `int` takes it for 0
module t;
  logic [3:0] a = 9, z = 0;
  int n;
  initial begin
    $display("%b %b", a / z, a % z);
    n = a / z;
    $display("%0d", n);
  end
endmodule
//> xxxx xxxx
//> 0

// IEEE 1364-2005 clause 5.2.1: what lies outside is x when read, lost when written
module t;
  reg [3:0] v;
  integer i;
  initial begin
    v = 4'b1010; i = 2;
    $display("%b", v[i +: 4]);
    v[i +: 4] = 4'b1101;
    $display("%b", v);
  end
endmodule
//> xx10
//> 0110

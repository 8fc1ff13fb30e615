// IEEE 1364-2005 clause 5.2.1 and 4.9.2: what is selected by an unknown index is not written, at any depth
module t;
  reg [7:0] v;
  reg [3:0] w [0:1];
  reg [3:0] m [0:1][0:1];
  integer i;
  initial begin
    i = 1;
    v = 0; w[0] = 0; w[1] = 1; m[0][1] = 4'd7; m[1][0] = 4'd5;
    v[1'bx] = 1;
    v[1'bx +: 2] = 3;
    w[1'bx][1] = 1;
    w[1'bx][2:1] = 3;
    w[1'bx][i +: 2] = 0;
    w[1][1'bx] = 0;
    m[2'b0x][1] = 4'd9;
    m[1][1'bz] = 4'd9;
    m[1'bx][0][2:1] = 0;
    $display("%b %b %b %0d %0d", v, w[0], w[1], m[0][1], m[1][0]);
    $display("%b", m[1'bx][0]);
  end
endmodule
//> 00000000 0000 0001 7 5
//> xxxx

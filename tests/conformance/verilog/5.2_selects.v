// IEEE 1364-2005 clause 5.2: bit, part and indexed part selects, and what lies outside
module t;
  reg [7:0] v; reg [0:7] r; reg [15:8] h; reg [7:0] mem [0:3]; reg [3:0] m2 [1:0][0:2]; integer i; reg [1:0] x;
  initial begin
    v = 8'b1100_1010; r = 8'b1100_1010; h = 8'hA5;
    $display("%b %b %b", v[0], r[0], h[8]);
    $display("%b %b %b", v[3:0], r[0:3], h[15:12]);
    i = 2; $display("%b %b %b %b", v[i +: 3], v[i -: 3], r[i +: 3], r[i -: 3]);
    $display("%b %b", v[8], v[9:6]);
    i = 9; $display("%b", v[i]); x = 2'bx; $display("%b", v[x]);
    i = 6; $display("%b", v[i +: 4]);
    v[x] = 1; $display("%b", v); i = 9; v[i] = 0; $display("%b", v);
    i = 6; v[i +: 4] = 4'b0000; $display("%b", v);
    mem[0] = 8'h11; mem[1] = 8'h22; mem[x] = 8'hff; i = 5; mem[i] = 8'hee;
    $display("%h %h %h %h", mem[0], mem[1], mem[2], mem[i]);
    mem[1][3:0] = 4'hf; $display("%h %b", mem[1], mem[1][7:4]); i = 1; mem[i][i] = 0; $display("%h %b", mem[i], mem[i][i]);
    m2[1][2] = 4'd9; m2[0][0] = 4'd3; i = 2; $display("%0d %0d %b", m2[1][i], m2[0][0], m2[0][1]);
    m2[i-1][i][0] = 0; $display("%0d", m2[1][2]);
    {v[0], h[9:8]} = 3'b101; $display("%b %b", v, h);
  end
endmodule
//> 0 1 1
//> 1010 1100 1010
//> 010 010 001 110
//> x xx11
//> x
//> x
//> xx11
//> 11001010
//> 11001010
//> 00001010
//> 11 22 xx xx
//> 2f 0010
//> 2d 0
//> 9 3 xxxx
//> 8
//> 00001011 10100101
